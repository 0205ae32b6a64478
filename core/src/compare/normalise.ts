import { attributeOf } from '../text/sameName';
import type { Normalise } from '../readouts/trendChoices';

/** Normalised values with their unit. */
export interface Normalised {
  readonly v: readonly (number | null)[];
  readonly unit: string;
}

/**
 * Normalises values, so that large and small assets can be compared.
 * - by the first value: percent of the first known value, which is 100 %;
 * - by an attribute: each value divided by the attribute's, such as kWh by "Floor area (m²)" → "kWh/m²".
 *
 * @param v values in `unit`; null = unknown.
 * @param attributes of the asset the values are of.
 * @returns null where there is nothing to divide by: no value or attribute, or one that is not above 0, of
 * which a proportion would mislead.
 */
export function normalised(
  v: readonly (number | null)[],
  unit: string,
  by: Normalise,
  attributes: Readonly<Record<string, string | number>>,
): Normalised | null {
  if (by.by === 'first') {
    const first = v.find((value) => value !== null);
    if (first === undefined || !(first! > 0)) return null;
    return { v: v.map((value) => (value === null ? null : (100 * value) / first!)), unit: '% of the first' };
  }
  const divisor = Number(attributeOf(attributes, by.name) ?? NaN);
  if (!(divisor > 0) || !Number.isFinite(divisor)) return null;
  return {
    v: v.map((value) => (value === null ? null : value / divisor)),
    unit: perAttribute(unit, by.name),
  };
}

/**
 * "kWh" per "Floor area (m²)" → "kWh/m²"; per "Beds", which names no unit → "kWh per Beds".
 * @example perAttribute('kWh', 'Floor area (m²)') // => 'kWh/m²'
 */
export function perAttribute(unit: string, name: string): string {
  const own = /\(([^()]+)\)\s*$/.exec(name)?.[1];
  if (!own) return unit ? `${unit} per ${name}` : `per ${name}`;
  return `${unit || '1'}/${own.includes('/') ? `(${own})` : own}`;
}
