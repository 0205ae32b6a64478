import { groupedAnswer, groupedInputs } from '../testing/groupedReadout';
import { readoutValues } from '../readouts/readoutValues';
import type { Readout } from './board';
import { trendOfValue } from './valueTrend';

const BAND = { direction: 'lower', caution: 30, breach: 60, target: null } as const;
const ofPlant = (choices: object, name = 'Quayside') => {
  const { readout, metrics } = groupedInputs('ranking', { groupBy: { kind: 'plant' }, ...choices }, ['3']);
  const answer = groupedAnswer(
    [{ name, values: [50, 60], assetId: name === '' ? null : '7' }],
    ['kWh', '°C'],
  );
  return {
    readout: readout as Readout,
    value: readoutValues(answer, { ...(readout as Readout), keepBlanks: true }, metrics)[0],
  };
};

const noPath = () => undefined;

describe('a value over time', () => {
  it('is a trend of its group over its stretch of time, all its metrics together', () => {
    const { readout, value } = ofPlant({ band: BAND, moreBands: [BAND] });
    expect(trendOfValue(readout, value, noPath)).toMatchObject({
      form: 'trend',
      groupBy: { kind: 'all' },
      scope: { assetIds: ['7'] },
      measures: [{ metricId: '1' }],
      // Limits of a total do not fit what a trend shows of it.
      band: null,
    });
    const over = { kind: 'rolling', count: 7, unit: 'day' } as const;
    expect(trendOfValue(readout, { ...value, measure: 1, over }, noPath)).toMatchObject({
      measures: [{ metricId: '3' }],
      window: over,
      band: BAND,
    });
  });

  it('is none where no scope says which assets the group has', () => {
    const { readout, value } = ofPlant(
      { groupBy: { kind: 'attribute', name: 'Maker' }, keepBlanks: true },
      '',
    );
    expect(trendOfValue(readout, value, noPath)).toBeNull();
  });
});
