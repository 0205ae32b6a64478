import {
  hoursSchema,
  readWindowText,
  scopeSchema,
  windowText,
  type HoursFilter,
  type Scope,
  type WindowSpec,
} from '@vivid-beacon/core';

/** How a board is looked at where that differs from how it was saved. null = as saved. */
export interface LookChange {
  readonly window: WindowSpec | null;
  readonly scope: Scope | null;
  /** undefined = as saved; null = all hours. */
  readonly hours: HoursFilter | null | undefined;
  /** The asset everything follows. */
  readonly focus: string | null;
}

/** The parts of an address that hold a look: a link shows the same. Absent = as saved. */
export interface LookParams {
  readonly window?: string;
  readonly scope?: string;
  readonly hours?: string;
  readonly focus?: string;
}

export const AS_SAVED: LookChange = { window: null, scope: null, hours: undefined, focus: null };

export function lookParams({ window, scope, hours, focus }: LookChange): LookParams {
  return {
    window: window ? windowText(window) : undefined,
    scope: scope ? JSON.stringify(scope) : undefined,
    hours: hours === undefined ? undefined : hours === null ? 'all' : JSON.stringify(hours),
    focus: focus ?? undefined,
  };
}

/** Reads a look from an address; a part that cannot be read is as saved. */
export function readLook({ window, scope, hours, focus }: LookParams): LookChange {
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
