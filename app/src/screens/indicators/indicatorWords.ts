import {
  BUCKET_WORDS,
  changeOf,
  displayDivisor,
  displayUnit,
  formatNumber,
  formatValue,
  hoursWords,
  LEVEL_WORDS,
  lowerFirst,
  perName,
  SUMMARY_WORDS,
  windowWords,
  type DisplayScale,
  type IndicatorDefinition,
  type IndicatorReading,
  type Judge,
  type Metric,
  type CustomThresholds,
  type ReferenceSource,
  type TargetSource,
} from '@vivid-beacon/core';
import { DIRECTION_WORDS } from '../../bands/directionWords';

/** Looks a metric up by its id. */
export type MetricOf = (id: string) => Pick<Metric, 'name' | 'assetName'> | undefined;

type Format = Pick<IndicatorDefinition, 'decimals' | 'display'>;

/** A value of an indicator as a number in its own format, without its unit. */
export function shownNumber(value: number | null, { decimals, display }: Format): string {
  if (value === null) return '–';
  return formatNumber(
    value / displayDivisor(display),
    display === 'units' ? decimals : Math.max(decimals, 1),
  );
}

/** The same with its unit: in thousands or millions where it is shown so. */
export function shownValue(value: number | null, unit: string, { decimals, display }: Format): string {
  const shown = value === null ? null : value / displayDivisor(display);
  return formatValue(
    shown,
    displayUnit(unit, display),
    display === 'units' ? decimals : Math.max(decimals, 1),
  );
}

/** "the sum of washed weight, Wash house". */
export function measureWords({ measure }: Pick<IndicatorDefinition, 'measure'>, metricOf: MetricOf): string {
  const name = (id: string): string => {
    const metric = metricOf(id);
    return metric ? `${lowerFirst(metric.name)}, ${metric.assetName}` : 'a removed metric';
  };
  const upper = `the ${SUMMARY_WORDS[measure.summary]} of ${name(measure.metricId)}`;
  if (measure.per) return `${upper}, per ${name(measure.per.metricId)}`;
  return measure.perAttribute == null ? upper : `${upper}, per ${perName(measure.perAttribute)}`;
}

const percent = (x: number): string => `${formatNumber(x, Number.isInteger(x) ? 0 : 1)} %`;

/** "Breach, from 85 % Caution, from 95 % Clear". */
function cutWords({ cuts, levels }: CustomThresholds, value: (x: number) => string): string {
  return levels
    .map((level, i) => (i === 0 ? '' : `from ${value(cuts[i - 1])} `) + LEVEL_WORDS[level])
    .join(', ');
}

/** "lower is better: Clear to 3 %, Caution to 4 %". */
export function judgeWords(judge: Judge, unit: string, decimals: number): string {
  if (judge.kind === 'target') {
    const { direction, clear, caution } = judge;
    const levels =
      clear === caution
        ? `Clear from ${percent(clear)} of the target`
        : `Clear from ${percent(clear)} of the target, Caution from ${percent(caution)}`;
    return `${DIRECTION_WORDS[direction]}: ${levels}`;
  }
  if (judge.kind === 'targetCuts') return `custom shares of the target: ${cutWords(judge, percent)}`;
  const { band } = judge;
  const value = (x: number): string => formatValue(x, unit, decimals);
  if (band.direction === 'inside') {
    return `inside is better: Clear from ${value(band.clearLow)} to ${value(band.clearHigh)}, Caution from ${value(band.breachLow)} to ${value(band.breachHigh)}`;
  }
  if (band.direction === 'cuts') return `custom thresholds: ${cutWords(band, value)}`;
  const word = band.direction === 'lower' ? 'to' : 'from';
  return band.caution === band.breach
    ? `${DIRECTION_WORDS[band.direction]}: Clear ${word} ${value(band.caution)}`
    : `${DIRECTION_WORDS[band.direction]}: Clear ${word} ${value(band.caution)}, Caution ${word} ${value(band.breach)}`;
}

const PRORATED = {
  calendar: 'as much of it as has passed',
  working: 'as much of it as has been worked',
  none: 'whole',
} as const;

/** "5 % less". */
const moreOrLess = (by: number): string => `${formatNumber(Math.abs(by), 1)} % ${by > 0 ? 'more' : 'less'}`;

const usualWords = (weeks: number): string => `what is usual in the ${weeks} weeks before`;

/** Where the target comes from. */
export function targetWords(target: TargetSource, unit: string, format: Format): string {
  switch (target.kind) {
    case 'none':
      return 'no target';
    case 'fixed':
      return [
        shownValue(target.value, unit, format),
        ...(target.prorate && target.prorate !== 'none' ? [PRORATED[target.prorate]] : []),
      ].join(', ');
    case 'periods':
      return `entered by ${BUCKET_WORDS[target.period]}, ${PRORATED[target.prorate]}`;
    case 'measure':
      return target.factor === 1
        ? 'another metric'
        : `${formatNumber(target.factor, 2)} times another metric`;
    case 'lastYear': {
      const { percent } = target;
      return percent === 0 ? 'what it was last year' : `${moreOrLess(percent)} than last year`;
    }
    case 'baseline': {
      const { percent } = target;
      const usual = usualWords(target.weeks);
      return percent === 0 ? usual : `${moreOrLess(percent)} than ${usual}`;
    }
  }
}

/** What it is compared with. */
export function referenceWords(reference: ReferenceSource, unit: string, format: Format): string {
  switch (reference.kind) {
    case 'none':
      return 'nothing';
    case 'fixed':
      return shownValue(reference.value, unit, format);
    case 'before':
      return 'the period before';
    case 'lastYear':
      return 'the same last year';
    case 'baseline':
      return usualWords(reference.weeks);
    case 'measure':
      return 'another metric';
  }
}

/** The change against the reference: "up 0.4 %, 3.1 % more" – of a base of zero without a percentage. */
export function indicatorChangeWords({
  reading,
  definition,
}: Pick<IndicatorReading, 'reading' | 'definition'>): string {
  const change = changeOf(reading.value, reading.previous);
  if (!change) return 'no reference';
  if (change.by === 0) return 'no change';
  const by = shownValue(Math.abs(change.by), reading.unit, definition);
  const percent = change.percent === null ? '' : `, ${formatNumber(Math.abs(change.percent), 1)} %`;
  return `${change.by > 0 ? 'up' : 'down'} ${by}${percent} on ${referenceWords(definition.reference, reading.unit, definition)}`;
}

/** When it is looked at: "the last 24 hours, in working hours". */
export function whenWords({ window, hours }: Pick<IndicatorDefinition, 'window' | 'hours'>): string {
  return hours ? `${windowWords(window)}, ${hoursWords(hours)}` : windowWords(window);
}

/** How numbers are written. */
export function formatWords({
  decimals,
  display,
}: {
  readonly decimals: number;
  readonly display: DisplayScale;
}): string {
  const places = decimals === 0 ? 'whole numbers' : decimals === 1 ? 'one decimal' : `${decimals} decimals`;
  return display === 'units' ? places : `${places} in ${display}`;
}
