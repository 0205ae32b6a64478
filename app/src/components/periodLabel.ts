import type { DateTime } from 'luxon';
import type { ReferencePeriod } from '@vivid-beacon/core';

/** A period by its local first day: "Nov 2026", "Q4 2026", "Week of 2 Nov 2026". */
export function periodLabel(at: DateTime, period: ReferencePeriod): string {
  switch (period) {
    case 'day':
      return at.toFormat('ccc d LLL yyyy');
    case 'week':
      return `Week of ${at.toFormat('d LLL yyyy')}`;
    case 'month':
      return at.toFormat('LLL yyyy');
    case 'quarter':
      return `Q${at.quarter} ${at.year}`;
    case 'year':
      return String(at.year);
    case 'financialYear':
      return at.month === 1 ? `FY ${at.year}` : `FY ${at.year}/${String(at.year + 1).slice(2)}`;
  }
}
