import type { DateTime } from 'luxon';
import { writtenDate, type ReferencePeriod } from '@vivid-beacon/core';

/** A period by its local first day: "Nov 2026", "Q4 2026", "Week of 2 Nov 2026", "Q3 FY 2026/27". */
export function periodLabel(at: DateTime, period: ReferencePeriod, financialYearMonth: number): string {
  switch (period) {
    case 'day':
      return writtenDate(at, 'dayOfYear');
    case 'week':
      return `Week of ${writtenDate(at, 'plainOfYear')}`;
    case 'month':
      return at.toFormat('LLL yyyy');
    case 'quarter':
      return `Q${at.quarter} ${at.year}`;
    case 'year':
      return String(at.year);
    case 'financialQuarter': {
      const months = (at.month + 12 - financialYearMonth) % 12;
      const year = at.minus({ months });
      return `Q${Math.floor(months / 3) + 1} ${periodLabel(year, 'financialYear', financialYearMonth)}`;
    }
    case 'financialYear':
      return at.month === 1 ? `FY ${at.year}` : `FY ${at.year}/${String(at.year + 1).slice(2)}`;
  }
}
