import { unitOfMeasure, type Measure, type Metric, type Readout } from '@vivid-beacon/core';

/** A unit of a trend's lines, with the first measure that has it. */
export interface ShownUnit {
  readonly unit: string;
  readonly measure: Measure;
}

/** The units of a trend's lines, in the order their axes stand: of other forms, and of groups, only the first. */
export function unitsShown(readout: Readout, metrics: readonly Metric[]): ShownUnit[] {
  const several = 'normalise' in readout && readout.groupBy === null && readout.normalise === null;
  const units: ShownUnit[] = [];
  for (const measure of several ? readout.measures : readout.measures.slice(0, 1)) {
    const unit = unitOfShown(measure, metrics);
    if (unit !== null && !units.some((each) => each.unit === unit)) units.push({ unit, measure });
  }
  return units.slice(0, 2);
}

/** The unit of a measure; null while one of its metrics is not known. */
export function unitOfShown(
  { metricId, summary, per, perAttribute }: Measure,
  metrics: readonly Metric[],
): string | null {
  const upper = metrics.find(({ id }) => id === metricId);
  if (!upper) return null;
  const lower = per && metrics.find(({ id }) => id === per.metricId);
  if (per && !lower) return null;
  return unitOfMeasure(
    { summary, unit: upper.unit },
    per && { summary: per.summary, unit: lower!.unit },
    per?.unit ?? null,
    perAttribute,
  );
}
