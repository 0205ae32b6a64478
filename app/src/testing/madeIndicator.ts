import type { IndicatorDefinition, IndicatorReading } from '@vivid-beacon/core';

const DAY = 86_400_000;

const DEFINITION: IndicatorDefinition = {
  name: 'Washed weight of the month',
  description: 'Against the plan.',
  assetId: '2',
  ownerId: null,
  measure: { metricId: '10', summary: 'sum', per: null },
  window: { kind: 'toDate', unit: 'month' },
  hours: null,
  judge: { kind: 'target', direction: 'higher', clear: 98, caution: 95 },
  target: { kind: 'periods', period: 'month', prorate: 'calendar' },
  reference: { kind: 'before' },
  decimals: 0,
  display: 'thousands',
  boardId: null,
};

/** The washed weight of a month so far: in Caution, 330,000 kg of 340,000 kg. */
export function madeIndicator(
  now: number,
  part: Partial<IndicatorDefinition> = {},
  unit = 'kg',
): IndicatorReading {
  const definition = { ...DEFINITION, ...part };
  return {
    id: '1',
    version: 2,
    definition,
    name: definition.name,
    assetName: 'Wash house',
    place: 'Quayside / Wash house',
    plantId: '1',
    ownerName: 'Ines Varga',
    measure: definition.measure,
    window: definition.window,
    decimals: definition.decimals,
    target: 340_000,
    band: { direction: 'higher', caution: 333_200, breach: 323_000, target: 340_000 },
    reading: {
      value: 330_000,
      unit,
      level: 'caution',
      coverage: 1,
      partial: true,
      previous: 300_000,
      asOf: now,
      now: now,
      provenance: {
        formula: 'sum',
        window: { start: now - DAY, end: now },
        zone: 'UTC',
        parts: [],
        minimumCoverage: 0.75,
        shared: null,
      },
    } as IndicatorReading['reading'],
  };
}
