/** Heating below the base temperature or cooling above it. */
export type DegreeDayKind = 'heating' | 'cooling';

/**
 * How degree days are worked out:
 * - `mean`: the difference of the daily mean from the base, where it counts. ASHRAE Handbook –
 *   Fundamentals, chapter "Climatic design information" (from memory).
 * - `minMax`: the equations of the Met Office from the lowest and highest temperature of the day, as given in
 *   CIBSE TM41, Degree-days: theory and application, 2006, table 2.1 (from memory).
 */
export const DEGREE_DAY_METHODS = ['mean', 'minMax'] as const;
export const DEGREE_DAY_KINDS = ['heating', 'cooling'] as const;
export type DegreeDayMethod = (typeof DEGREE_DAY_METHODS)[number];

/** Temperatures of one day, °C (or °F throughout). */
export interface DayTemperature {
  readonly mean: number;
  readonly min: number;
  readonly max: number;
}

/**
 * Degree days of one day, in kelvin days (°F·d where temperatures are in °F). Never negative.
 *
 * @param base the base temperature, in the unit of the day's temperatures.
 * @example degreeDaysOfDay({ mean: 10, min: 5, max: 15 }, 15.5, 'heating', 'minMax') // => 5.5
 */
export function degreeDaysOfDay(
  day: DayTemperature,
  base: number,
  kind: DegreeDayKind,
  method: DegreeDayMethod,
): number {
  if (kind === 'cooling') {
    // The same equations, mirrored.
    const turned = { mean: -day.mean, min: -day.max, max: -day.min };
    return degreeDaysOfDay(turned, -base, 'heating', method);
  }
  if (method === 'mean') return Math.max(0, base - day.mean);
  const { min, max } = day;
  if (max <= base) return base - (max + min) / 2;
  if (min >= base) return 0;
  const below = base - min;
  const above = max - base;
  return below > above ? below / 2 - above / 4 : below / 4;
}
