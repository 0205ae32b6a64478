import { hoursSchema } from '../schemas/hours';
import { readWindowText, windowText } from '../time/windowText';
import { scopeSchema, type Scope } from '../domain/query';
import type { HoursFilter } from '../time/hoursFilter';
import type { WindowSpec } from '../time/windowSpec';

/** The filters of a board that differ from how it was saved. null = as saved. */
export interface FilterChange {
  readonly window: WindowSpec | null;
  readonly scope: Scope | null;
  /** undefined = as saved; null = all hours. */
  readonly hours: HoursFilter | null | undefined;
  /** The focused asset. */
  readonly focus: string | null;
}

/** The filters as query parameters, so that a link shows the same view. Absent = as saved. */
export interface FilterParams {
  readonly window?: string;
  readonly scope?: string;
  readonly hours?: string;
  readonly focus?: string;
}

export const AS_SAVED: FilterChange = { window: null, scope: null, hours: undefined, focus: null };

export function filterParams({ window, scope, hours, focus }: FilterChange): FilterParams {
  return {
    window: window ? windowText(window) : undefined,
    scope: scope ? JSON.stringify(scope) : undefined,
    hours: hours === undefined ? undefined : hours === null ? 'all' : JSON.stringify(hours),
    focus: focus ?? undefined,
  };
}

/** Reads the filters from query parameters; one that cannot be read counts as saved. */
export function readFilters({ window, scope, hours, focus }: FilterParams): FilterChange {
  return {
    window: window ? readWindowText(window) : null,
    scope: scope ? checked(scopeSchema, scope) : null,
    hours: hours === 'all' ? null : hours ? (checked(hoursSchema, hours) ?? undefined) : undefined,
    focus: focus && /^\d{1,19}$/.test(focus) ? focus : null,
  };
}

function checked<T>(schema: { validateSync: (value: unknown) => T }, text: string): T | null {
  try {
    return schema.validateSync(JSON.parse(text));
  } catch {
    return null;
  }
}
