import * as yup from 'yup';
import { BeaconError } from '../errors';
import { finite } from '../schemas/parts';
import { difference, isAbove, isBelow, slackOf } from '../stats/decimal';
import { amount, list, oneOf, shape, taggedUnion, type TypeOf } from '../schemas/shape';

/** The four levels, best first, then No data. */
export const LEVELS = ['clear', 'caution', 'breach', 'nodata'] as const;
export type Level = (typeof LEVELS)[number];

export const LEVEL_WORDS: Readonly<Record<Level, string>> = {
  clear: 'Clear',
  caution: 'Caution',
  breach: 'Breach',
  nodata: 'No data',
};

export const DIRECTIONS = ['higher', 'lower', 'inside'] as const;
export type Direction = (typeof DIRECTIONS)[number];

/** The levels of a known value, best first. */
export const VALUE_LEVELS = ['clear', 'caution', 'breach'] as const;
export type ValueLevel = (typeof VALUE_LEVELS)[number];

/** Largest number of custom thresholds. */
export const MAX_THRESHOLDS = 5;

/**
 * Thresholds that divide the values into sections, in the unit of the band or in percent of the target:
 * `levels[i]` holds from `cuts[i - 1]` to `cuts[i]`, so there is one level more than thresholds.
 */
export const customThresholdFields = {
  cuts: yup
    .array(finite().required('Give each threshold a value'))
    .min(1)
    .max(MAX_THRESHOLDS, `At most ${MAX_THRESHOLDS} thresholds`)
    .required('Give the thresholds'),
  levels: yup
    .array(yup.string().oneOf(VALUE_LEVELS).required('Choose a level for each section'))
    .max(MAX_THRESHOLDS + 1)
    .required('Choose a level for each section'),
};
const target = finite().nullable().default(null);
const limit = finite().required();

/**
 * Divides the values of a measure into Clear, Caution and Breach, in the unit of the measure.
 *
 * `lower` is better: Clear up to `caution`, Caution up to `breach`, Breach above (caution ≤ breach). `higher`
 * is better: Clear from `caution` up, Caution from `breach` up, Breach below (breach ≤ caution). `inside` is
 * better: Clear within [clearLow, clearHigh], Caution within [breachLow, breachHigh]. `cuts`: custom
 * thresholds, up to five, rising, each part with a level of its choice. Equal limits leave no Caution. A
 * value exactly on a limit has the better level; values that agree with it in their first 12 digits are on it.
 */
export const bandSchema = taggedUnion('TargetBand', 'direction', {
  higher: { caution: limit, breach: limit, target },
  lower: { caution: limit, breach: limit, target },
  inside: { clearLow: limit, clearHigh: limit, breachLow: limit, breachHigh: limit, target },
  cuts: { ...customThresholdFields, target },
});
export type TargetBand = TypeOf<typeof bandSchema>;
export type CustomThresholds = Pick<Extract<TargetBand, { direction: 'cuts' }>, 'cuts' | 'levels'>;

/** ms on each level. */
export const levelTimes = shape({ clear: amount(), caution: amount(), breach: amount(), nodata: amount() });
export const levelSchema = oneOf(LEVELS);
export const levelList = list(levelSchema);

/** Share of a window that needs usable data before a level is given (rules of truth). */
export const MINIMUM_COVERAGE = 0.75;

/**
 * Whether enough of a stretch of time is covered for its value to be judged, compared and drawn.
 * @example isCovered({ coverage: 0.74 }) // => false
 */
export function isCovered({ coverage }: { readonly coverage: number }): boolean {
  return coverage >= MINIMUM_COVERAGE;
}

/**
 * The value if enough of its time is covered, otherwise null. Comparisons and lines use it.
 *
 * @example coveredValue({ value: 5, coverage: 0.5 }) // => null
 */
export function coveredValue(given: {
  readonly value: number | null;
  readonly coverage: number;
}): number | null {
  return isCovered(given) ? given.value : null;
}

/** @throws {BeaconError} BAD_INPUT naming the limit that is out of order. */
export function checkBand(band: TargetBand): void {
  if (band.direction === 'lower' && band.caution > band.breach) {
    throw order('caution', 'at most', band.caution, 'breach', band.breach);
  }
  if (band.direction === 'higher' && band.caution < band.breach) {
    throw order('caution', 'at least', band.caution, 'breach', band.breach);
  }
  if (band.direction === 'cuts') checkThresholds(band);
  if (band.direction === 'inside') {
    if (band.breachLow > band.clearLow) {
      throw order('breachLow', 'at most', band.breachLow, 'clearLow', band.clearLow);
    }
    if (band.clearLow > band.clearHigh) {
      throw order('clearLow', 'at most', band.clearLow, 'clearHigh', band.clearHigh);
    }
    if (band.clearHigh > band.breachHigh) {
      throw order('clearHigh', 'at most', band.clearHigh, 'breachHigh', band.breachHigh);
    }
  }
}

/**
 * @throws {BeaconError} BAD_INPUT naming the threshold that is out of order, or levels that do not match the
 * thresholds.
 */
export function checkThresholds({ cuts, levels }: CustomThresholds): void {
  if (cuts.length < 1 || cuts.length > MAX_THRESHOLDS || levels.length !== cuts.length + 1) {
    throw new BeaconError(
      'BAD_INPUT',
      `Custom thresholds number 1 to ${MAX_THRESHOLDS}, with one level more than thresholds; got ${cuts.length} thresholds and ${levels.length} levels.`,
      'band.cuts',
    );
  }
  cuts.forEach((cut, i) => {
    if (i > 0 && cut < cuts[i - 1]) {
      throw new BeaconError(
        'BAD_INPUT',
        `Threshold ${i + 1} must be at least threshold ${i} (${cuts[i - 1]}), got ${cut}.`,
        `band.cut${i}`,
      );
    }
  });
}

const LIMIT_WORDS: Record<string, string> = {
  caution: 'end of Clear',
  breach: 'start of Breach',
  clearLow: 'lower end of Clear',
  clearHigh: 'upper end of Clear',
  breachLow: 'lower start of Breach',
  breachHigh: 'upper start of Breach',
};

function order(field: string, how: string, value: number, other: string, limit: number): BeaconError {
  return new BeaconError(
    'BAD_INPUT',
    `The ${LIMIT_WORDS[field]} must be ${how} the ${LIMIT_WORDS[other]} (${limit}), got ${value}.`,
    `band.${field}`,
  );
}

/**
 * The level of a value; No data without a value or with too little coverage.
 * @example levelOf({ direction: 'lower', caution: 3, breach: 4, target: 2.5 }, 3.5) // => 'caution'
 */
export function levelOf(band: TargetBand, value: number | null, coverage = 1): Level {
  if (value === null || Number.isNaN(value) || !isCovered({ coverage })) return 'nodata';
  switch (band.direction) {
    case 'lower':
      if (!isAbove(value, band.caution)) return 'clear';
      return isAbove(value, band.breach) ? 'breach' : 'caution';
    case 'higher':
      if (!isBelow(value, band.caution)) return 'clear';
      return isBelow(value, band.breach) ? 'breach' : 'caution';
    case 'inside':
      if (!isBelow(value, band.clearLow) && !isAbove(value, band.clearHigh)) return 'clear';
      return isBelow(value, band.breachLow) || isAbove(value, band.breachHigh) ? 'breach' : 'caution';
    case 'cuts':
      return levelOfCuts(band, value);
  }
}

/** The best level of the sections a value belongs to; a value on a threshold belongs to two. */
function levelOfCuts({ cuts, levels }: CustomThresholds, value: number): ValueLevel {
  const held = levels.filter(
    (_, i) => (i === 0 || !isBelow(value, cuts[i - 1])) && (i === cuts.length || !isAbove(value, cuts[i])),
  );
  return held.reduce((a, b) => (SEVERITY[b] > SEVERITY[a] ? b : a));
}

/** One sector of a scale: the values between `from` and `to` have this level. */
export interface Sector {
  readonly from: number;
  readonly to: number;
  readonly level: ValueLevel;
}

type Cut = readonly [upTo: number, level: ValueLevel];

/** Upper ends of the sectors, in order of value. */
function cutsOf(band: TargetBand): readonly Cut[] {
  if (band.direction === 'inside') {
    return [
      [band.breachLow, 'breach'],
      [band.clearLow, 'caution'],
      [band.clearHigh, 'clear'],
      [band.breachHigh, 'caution'],
      [Infinity, 'breach'],
    ];
  }
  if (band.direction === 'cuts') {
    return band.levels.map((level, i): Cut => [band.cuts[i] ?? Infinity, level]);
  }
  return band.direction === 'lower'
    ? [
        [band.caution, 'clear'],
        [band.breach, 'caution'],
        [Infinity, 'breach'],
      ]
    : [
        [band.breach, 'breach'],
        [band.caution, 'caution'],
        [Infinity, 'clear'],
      ];
}

/** The sectors of a band along a scale, in order of value; empty sectors are left out. */
export function sectorsOf(band: TargetBand, low: number, high: number): Sector[] {
  const cuts = cutsOf(band);
  const sectors: Sector[] = [];
  let from = low;
  for (const [cut, level] of cuts) {
    const to = Math.min(Math.max(cut, low), high);
    if (to > from) sectors.push({ from, to, level });
    from = Math.max(from, to);
  }
  return sectors;
}

/** Distance of a value to the limit or target that matters, for the line under a gauge. */
export interface Distance {
  /** Always ≥ 0, in the unit of the measure. */
  readonly by: number;
  readonly words:
    | 'over limit'
    | 'under limit'
    | 'over target'
    | 'under target'
    | 'over Clear'
    | 'under Clear'
    | 'on target';
}

/**
 * Distance to the Breach limit when in breach, to the end of Clear in caution, else to the target.
 * @example distanceOf({ direction: 'lower', caution: 3, breach: 4, target: 2.5 }, 5) // => { by: 1, words: 'over limit' }
 */
export function distanceOf(band: TargetBand, value: number): Distance | null {
  const level = levelOf(band, value);
  if (level !== 'clear' && band.direction === 'cuts') return distanceToBetter(band, value, level);
  const limits =
    band.direction === 'inside'
      ? {
          caution: isAbove(value, band.clearHigh) ? band.clearHigh : band.clearLow,
          breach: isAbove(value, band.breachHigh) ? band.breachHigh : band.breachLow,
        }
      : { caution: NaN, breach: NaN, ...band };
  if (level === 'breach') {
    const by = difference(value, limits.breach);
    return { by: Math.abs(by), words: by > 0 ? 'over limit' : 'under limit' };
  }
  if (level === 'caution') {
    const by = difference(value, limits.caution);
    return { by: Math.abs(by), words: by > 0 ? 'over Clear' : 'under Clear' };
  }
  if (band.target === null) return null;
  const by = difference(value, band.target);
  if (Math.abs(by) <= slackOf(value, band.target)) return { by: 0, words: 'on target' };
  return { by: Math.abs(by), words: by > 0 ? 'over target' : 'under target' };
}

/** Distance to the nearest threshold that leads to a better level; null if no level is better. */
function distanceToBetter(band: TargetBand & CustomThresholds, value: number, level: Level): Distance | null {
  const better = band.cuts.filter((cut) => SEVERITY[levelOf(band, cut)] > SEVERITY[level]);
  if (better.length === 0) return null;
  const nearest = better.reduce((a, b) => (Math.abs(value - b) < Math.abs(value - a) ? b : a));
  const by = difference(value, nearest);
  const end = level === 'breach' ? 'limit' : 'Clear';
  return { by: Math.abs(by), words: by > 0 ? `over ${end}` : `under ${end}` };
}

/**
 * All limits of a band, for choosing a scale that shows them.
 * @example limitsOf({ direction: 'lower', caution: 3, breach: 4, target: 2.5 }) // => [3, 4, 2.5]
 */
export function limitsOf(band: TargetBand): number[] {
  const limits =
    band.direction === 'inside'
      ? [band.breachLow, band.clearLow, band.clearHigh, band.breachHigh]
      : band.direction === 'cuts'
        ? [...band.cuts]
        : [band.caution, band.breach];
  return band.target === null ? limits : [...limits, band.target];
}

/** How serious a level is, for sorting: breach first, clear last. */
export const SEVERITY: Readonly<Record<Level, number>> = { breach: 0, caution: 1, nodata: 2, clear: 3 };
