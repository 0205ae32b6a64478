import { UcumLhcUtils } from '@lhncbc/ucum-lhc';

/*
 * Units as people write them. Each is read as a product of parts; a part is looked up among usual spellings
 * and in UCUM (The Unified Code for Units of Measure, through the library of the Lister Hill Center), and a
 * word that UCUM does not know ("reads", "loads", "€") is a base unit of its own. What a person typed is
 * what is shown.
 */

/** A unit: how it is written, how large it is in base units, and its dimension. */
export interface Unit {
  /** Parts as written with their exponents, in order: kWh/kg = [["kWh", 1], ["kg", -1]]. */
  readonly parts: readonly (readonly [string, number])[];
  readonly factor: number;
  /** Exponents of base units; those of zero are left out. */
  readonly dimension: Readonly<Record<string, number>>;
}

export const NO_UNIT: Unit = { parts: [], factor: 1, dimension: {} };

/** Usual spellings that are not UCUM codes. */
const SPELLINGS: Readonly<Record<string, string>> = {
  kWh: 'kW.h',
  MWh: 'MW.h',
  GWh: 'GW.h',
  Wh: 'W.h',
  kVA: 'kV.A',
  kvar: 'kV.A',
  kVAh: 'kV.A.h',
  '°C': 'Cel',
  '℃': 'Cel',
  '°F': '[degF]',
  K: 'K',
  // Differences, which no zero point belongs to.
  ΔK: 'K',
  'Δ°C': 'K',
  'Δ°F': '[degF]',
  'm³': 'm3',
  'm²': 'm2',
  'cm³': 'cm3',
  'cm²': 'cm2',
  Nm3: 'm3',
  'Nm³': 'm3',
  litre: 'L',
  litres: 'L',
  liter: 'L',
  l: 'L',
  hour: 'h',
  hours: 'h',
  hr: 'h',
  hrs: 'h',
  minute: 'min',
  minutes: 'min',
  mins: 'min',
  sec: 's',
  second: 's',
  seconds: 's',
  day: 'd',
  days: 'd',
  week: 'wk',
  month: 'mo',
  year: 'a',
  yr: 'a',
  tonne: 't',
  tonnes: 't',
  µs: 'us',
  μs: 'us',
  µm: 'um',
  bit: 'bit',
  bits: 'bit',
  byte: 'By',
  bytes: 'By',
  B: 'By',
  kB: 'kBy',
  MB: 'MBy',
  GB: 'GBy',
  kbit: 'kbit',
  Mbit: 'Mbit',
  'Mbit/s': 'Mbit/s',
  psi: '[psi]',
  inHg: "[in_i'Hg]",
  ft: '[ft_i]',
  in: '[in_i]',
  lb: '[lb_av]',
  lbs: '[lb_av]',
  gal: '[gal_us]',
  BTU: '[Btu_IT]',
  Btu: '[Btu_IT]',
  kn: '[kn_i]',
  rpm: '{rev}/min',
  ppm: '[ppm]',
  Ω: 'Ohm',
  Ohm: 'Ohm',
  '%': '%',
  '‰': '10*-3',
};

const BASES = ['m', 's', 'g', 'rad', 'K', 'C', 'cd'];
const SUPERSCRIPTS: Readonly<Record<string, string>> = {
  '²': '2',
  '³': '3',
  '⁻': '-',
  '¹': '1',
  '⁴': '4',
};
const known = new Map<string, { factor: number; dimension: Record<string, number>; code: string | null }>();

/** Looks one part up: a usual spelling, a UCUM code, or a word of its own. */
function partOf(text: string): { factor: number; dimension: Record<string, number>; code: string | null } {
  const before = known.get(text);
  if (before) return before;
  const code = SPELLINGS[text] ?? text;
  const plain = /^[A-Za-z0-9_.*/^'[\]{}%-]+$/.test(code);
  const found = plain ? UcumLhcUtils.getInstance().getSpecifiedUnit(code, 'validate') : null;
  const unit = found?.unit;
  // The library also understands names and mends typing errors; only an exact code counts here.
  const exact = unit && found.origString === code && found.retMsg.length === 0;
  const result =
    exact && typeof unit.magnitude_ === 'number'
      ? { factor: unit.magnitude_, dimension: dimensionOf(unit.dim_?.dimVec_ ?? null), code }
      : { factor: 1, dimension: { [`‹${text}›`]: 1 }, code: null };
  known.set(text, result);
  return result;
}

function dimensionOf(vector: readonly number[] | null): Record<string, number> {
  const out: Record<string, number> = {};
  vector?.forEach((power, i) => {
    if (power !== 0) out[BASES[i] ?? `base${i}`] = power;
  });
  return out;
}

/**
 * Reads a unit as written: parts joined by · * . or space, and / once or more ("kg/m²/d", "kWh/(m²·a)");
 * exponents as ², ^2 or 2 behind letters that are no unit with it.
 */
export function readUnit(text: string): Unit {
  const trimmed = text.trim();
  if (trimmed === '' || trimmed === '1') return NO_UNIT;
  const whole = partOf(trimmed);
  if (whole.code !== null && !/[/·*]/.test(trimmed)) {
    return { parts: [[trimmed, 1]], factor: whole.factor, dimension: whole.dimension };
  }
  let sign = 1;
  let inside = false;
  let unit: Unit = NO_UNIT;
  for (const token of trimmed.match(/[/()]|[^/()·*\s]+|[·*\s]+/g) ?? []) {
    if (token === '/') sign = -1;
    else if (token === '(') inside = true;
    else if (token === ')') {
      inside = false;
      sign = 1;
    } else if (!/^[·*\s]+$/.test(token)) {
      unit = times(unit, power(onePart(token), sign));
      if (!inside) sign = 1;
    }
  }
  return unit;
}

function onePart(token: string): Unit {
  const found = /^(.*?[^\d^⁻¹²³⁴-])\^?([⁻-]?[\d¹²³⁴]+)$/.exec(token);
  if (found && (partOf(token).code === null || /[⁻¹²³⁴]/.test(token))) {
    const exponent = Number([...found[2]].map((each) => SUPERSCRIPTS[each] ?? each).join(''));
    if (Math.abs(exponent) <= 6 && partOf(found[1]).code !== null) return power(onePart(found[1]), exponent);
  }
  const { factor, dimension } = partOf(token);
  return { parts: [[token, 1]], factor, dimension };
}

/** The UCUM code of a unit as written, or null where part of it is a word UCUM does not know. */
export function ucumCode(text: string): string | null {
  const unit = readUnit(text);
  if (unit.parts.length === 0) return null;
  const codes = unit.parts.map(([part, exponent]) => {
    const { code } = partOf(part);
    if (code === null) return null;
    const wrapped = exponent !== 1 && /[./]/.test(code) ? `(${code})` : code;
    return { text: Math.abs(exponent) === 1 ? wrapped : `${wrapped}${Math.abs(exponent)}`, exponent };
  });
  if (codes.some((each) => each === null)) return null;
  const top = codes.filter((each) => each!.exponent > 0).map((each) => each!.text);
  const bottom = codes.filter((each) => each!.exponent < 0).map((each) => `/${each!.text}`);
  return `${top.join('.')}${bottom.join('')}`;
}

/** Product of two units; equal parts are joined and cancel. */
export function times(a: Unit, b: Unit): Unit {
  const parts = new Map<string, number>(a.parts);
  for (const [part, exponent] of b.parts) parts.set(part, (parts.get(part) ?? 0) + exponent);
  const dimension: Record<string, number> = { ...a.dimension };
  for (const [base, exponent] of Object.entries(b.dimension)) {
    dimension[base] = (dimension[base] ?? 0) + exponent;
    if (dimension[base] === 0) delete dimension[base];
  }
  return { parts: [...parts].filter(([, n]) => n !== 0), factor: a.factor * b.factor, dimension };
}

/** A unit to a power. */
export function power(unit: Unit, exponent: number): Unit {
  return {
    parts: exponent === 0 ? [] : unit.parts.map(([part, n]) => [part, n * exponent] as const),
    factor: unit.factor ** exponent,
    dimension: Object.fromEntries(
      Object.entries(unit.dimension).flatMap(([base, n]) =>
        n * exponent === 0 ? [] : [[base, n * exponent]],
      ),
    ),
  };
}

/** Quotient of two units. */
export function per(a: Unit, b: Unit): Unit {
  return times(a, power(b, -1));
}

/** Zero points of the temperature scales, in their own degrees below 0 (SI brochure; NIST SP 811, B.8). */
const ZERO_BELOW: Readonly<Record<string, number>> = { Cel: 273.15, '[degF]': 459.67, K: 0 };

/**
 * How far absolute zero lies below the zero of a temperature scale, in its degrees; null for anything else, also
 * for a difference (Δ°C).
 *
 * @example zeroBelow(readUnit('°F')) // => 459.67
 */
export function zeroBelow({ parts }: Unit): number | null {
  if (parts.length !== 1 || parts[0][1] !== 1 || parts[0][0].startsWith('Δ')) return null;
  const { code } = partOf(parts[0][0]);
  return code !== null && Object.hasOwn(ZERO_BELOW, code) ? ZERO_BELOW[code] : null;
}

/** Whether a unit is one of temperature differences: ΔK, Δ°C, Δ°F. */
export const isTemperatureDifference = ({ parts }: Unit): boolean =>
  parts.length === 1 &&
  parts[0][1] === 1 &&
  Object.hasOwn(SPELLINGS, parts[0][0]) &&
  parts[0][0].startsWith('Δ');

/**
 * The unit of differences of a quantity; only temperatures have one of their own.
 * @example unitOfDifference('°C') // => 'Δ°C'
 */
export function unitOfDifference(text: string): string {
  return zeroBelow(readUnit(text)) === null ? text : `Δ${text.trim()}`;
}

/** Whether two units measure the same quantity: kWh and MJ do, kWh and kg do not. */
export function sameDimension(a: Unit, b: Unit): boolean {
  const bases = new Set([...Object.keys(a.dimension), ...Object.keys(b.dimension)]);
  return [...bases].every((base) => (a.dimension[base] ?? 0) === (b.dimension[base] ?? 0));
}

/** By what a value in `from` is multiplied to be in `to`; null when they measure different quantities. */
export function conversion(from: Unit, to: Unit): number | null {
  return sameDimension(from, to) ? from.factor / to.factor : null;
}

/** A unit written out: "kWh/kg", "kg/(m²·d)". */
export function writeUnit({ parts }: Unit): string {
  const one = ([part, exponent]: readonly [string, number]): string => {
    const n = Math.abs(exponent);
    if (n === 1) return part;
    return `${part}${n === 2 ? '²' : n === 3 ? '³' : `^${n}`}`;
  };
  const top = parts.filter(([, n]) => n > 0).map(one);
  const bottom = parts.filter(([, n]) => n < 0).map(one);
  if (bottom.length === 0) return top.join('·');
  const under = bottom.length === 1 ? bottom[0] : `(${bottom.join('·')})`;
  return `${top.join('·') || '1'}/${under}`;
}
