import type { DateTime } from 'luxon';
import type { WindowUnit } from './windowUnit';

/** What of a working calendar decides where weeks and financial years begin. */
export interface PeriodRules {
  /** 1 = Monday … 7 = Sunday. */
  readonly firstWeekday: number;
  /** First month of the financial year, 1 to 12. */
  readonly financialYearMonth: number;
}

/** Weeks from Monday (ISO 8601), the financial year is the calendar year. */
export const DEFAULT_RULES: PeriodRules = { firstWeekday: 1, financialYearMonth: 1 };

/** Start of the period that holds a local time. */
export function startOfPeriod(at: DateTime, unit: WindowUnit, rules: PeriodRules): DateTime {
  if (unit === 'week') {
    return at.startOf('day').minus({ days: (at.weekday - rules.firstWeekday + 7) % 7 });
  }
  if (unit === 'financialYear') {
    const months = (at.month - rules.financialYearMonth + 12) % 12;
    return at.startOf('month').minus({ months });
  }
  return at.startOf(unit);
}

/** A local time moved by whole units; a month or year ends on the last day where the day is missing. */
export function plusPeriods(at: DateTime, count: number, unit: WindowUnit): DateTime {
  return at.plus({ [unit === 'financialYear' ? 'year' : unit]: count });
}
