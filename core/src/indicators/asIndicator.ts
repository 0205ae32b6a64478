import { isOverTime } from '../readouts/forms';
import type { Readout } from '../board/board';
import type { Comparison } from '../board/choices';
import type { IndicatorReading } from '../api/indicators';
import type { ReferenceSource } from './definition';

const COMPARISON: Readonly<Record<ReferenceSource['kind'], Comparison>> = {
  before: 'before',
  lastYear: 'lastYear',
  none: 'none',
  baseline: 'none',
  fixed: 'none',
  measure: 'none',
};

/**
 * Applies an indicator to a readout: measure, hours, band with the current target, comparison and format, and
 * the window unless the readout is a trend. Title and appearance stay the readout's own.
 */
export function asIndicator(
  readout: Readout,
  indicator: Pick<IndicatorReading, 'id' | 'name' | 'definition' | 'band'>,
): Readout {
  const { definition, band } = indicator;
  const [, ...more] = readout.measures;
  return {
    ...readout,
    indicatorId: indicator.id,
    title: readout.title ?? definition.name,
    measures: [definition.measure, ...more],
    window: isOverTime(readout) ? readout.window : definition.window,
    hours: definition.hours,
    band,
    compare: isOverTime(readout) ? readout.compare : COMPARISON[definition.reference.kind],
    decimals: definition.decimals,
    display: definition.display,
  };
}

/**
 * Applies the current indicators to their readouts. A readout whose indicator was removed keeps the settings
 * it had.
 */
export function followIndicators(
  readouts: readonly Readout[],
  indicators: readonly Pick<IndicatorReading, 'id' | 'name' | 'definition' | 'band' | 'reading'>[],
): readonly Readout[] {
  if (!readouts.some(({ indicatorId }) => indicatorId !== null)) return readouts;
  const byId = new Map(indicators.map((indicator) => [indicator.id, indicator]));
  return readouts.map((readout) => {
    const indicator = readout.indicatorId === null ? undefined : byId.get(readout.indicatorId);
    if (!indicator) return readout;
    const followed = asIndicator(readout, indicator);
    const { kind } = indicator.definition.reference;
    const own = kind === 'fixed' || kind === 'baseline' || kind === 'measure';
    return own ? { ...followed, reference: { kind, value: indicator.reading.previous } } : followed;
  });
}
