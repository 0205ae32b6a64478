/**
 * Hours that come again: of a day (over midnight when `to` ≤ `from`), weekdays, months, working time, one
 * shift; joined by all, any and not. Weekdays 1 = Monday … 7 = Sunday, months 1 to 12, clock "06:00".
 */
export type HoursFilter =
  | { readonly kind: 'clock'; readonly from: string; readonly to: string }
  | { readonly kind: 'weekdays'; readonly days: readonly number[] }
  | { readonly kind: 'months'; readonly months: readonly number[] }
  | { readonly kind: 'working'; readonly inside: boolean }
  | { readonly kind: 'shift'; readonly name: string }
  | { readonly kind: 'all'; readonly of: readonly HoursFilter[] }
  | { readonly kind: 'any'; readonly of: readonly HoursFilter[] }
  | { readonly kind: 'not'; readonly of: HoursFilter };
