import {
  formatMoment,
  formatValue,
  levelOf,
  LEVEL_WORDS,
  nameOfPeriod,
  sinceWords,
  type StretchRemark,
  type TargetBand,
} from '@vivid-beacon/core';
import { flagsAt, type FlagMark } from '@vivid-beacon/core/src/pictures';
import { nearestIndex } from '@vivid-beacon/core/src/pictures';
import type { PlottedSeries } from '@vivid-beacon/core/src/pictures';

interface PointOptions {
  readonly series: readonly PlottedSeries[];
  /** The subject over the time it is compared with. */
  readonly compared: PlottedSeries | undefined;
  /** Bands of the left and right axis; null = none. */
  readonly bands: readonly (TargetBand | null)[];
  readonly decimals: number;
  readonly remarks: readonly StretchRemark[];
  readonly flags: readonly FlagMark[];
  readonly zone: string;
  readonly now: number;
  /** Whether times are counted from a start event instead of dates. */
  readonly since: boolean;
}

/** A point of periods has the name of its period, one of samples its moment. */
function momentOf(t: number, series: readonly PlottedSeries[], zone: string, now: number): string {
  const line = series.find((each) => each.periods && each.t.includes(t));
  if (!line?.periods) return formatMoment(t, zone, now);
  const { bucket, start, end } = line.periods;
  const i = line.t.indexOf(t);
  return nameOfPeriod({ start: start[i], end: end[i] }, bucket, zone, now);
}

/** A moment of a trend in words: the value and level of every line, and the marks at that time. */
export function pointText(t: number, options: PointOptions): string {
  const { series, compared, bands, decimals, remarks, flags, zone, now, since } = options;
  const values = series.map((each) => {
    const i = nearestIndex(each.t, each.v, t);
    const value = i < 0 ? null : each.v[i];
    const text = formatValue(value, each.unit, decimals);
    const band = bands[each.axis];
    const level = band && value !== null ? `, ${LEVEL_WORDS[levelOf(band, value)]}` : '';
    return `${series.length > 1 ? `${each.name} ` : ''}${text}${level}`;
  });
  const before = compared ? nearestIndex(compared.t, compared.v, t) : -1;
  const compare =
    before >= 0 ? `, compared with ${formatValue(compared!.v[before], compared!.unit, decimals)}` : '';
  const notes = [
    ...remarks.filter(({ start, end }) => start <= t && t < end).map(({ text }) => `. Remark: ${text}`),
    ...flagsAt(flags, t).map(({ title }) => `. Flag: ${title}`),
  ];
  // Of several lines each has its level beside it: a comma alone would not tell where one ends.
  const separator = series.length > 1 && bands.some((band) => band !== null) ? '; ' : ', ';
  return `${since ? sinceWords(t) : momentOf(t, series, zone, now)}: ${values.join(separator)}${compare}${notes.join('')}`;
}
