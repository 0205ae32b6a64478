import type { Comparison, Readout } from '../board/board';
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
 * A readout with what its indicator governs: measure, hours, band with the target that holds now, comparison and
 * format; for one value also the window. A trend keeps its own window. What the readout is called and how it looks
 * stays its own.
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
    window: readout.form === 'trend' ? readout.window : definition.window,
    hours: definition.hours,
    band,
    compare: readout.form === 'trend' ? readout.compare : COMPARISON[definition.reference.kind],
    decimals: definition.decimals,
    display: definition.display,
  };
}

/** Every readout of an indicator as the indicator is now; of one that is gone as it was when it was chosen. */
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
