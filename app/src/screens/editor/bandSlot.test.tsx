import { useState } from 'react';
import { screen, waitFor } from '@testing-library/react';
import type { Metric, Readout, ReadoutForm, ReadoutParts } from '@vivid-beacon/core';
import { makeReadout, withMatchingChoices } from '@vivid-beacon/core/src/boards';
import { unitsShown } from '../../boards/unitsShown';
import { renderScreen } from '../../testing/renderScreen';
import { BandSlot } from './BandSlot';

jest.setTimeout(30_000);
jest.mock('../../hooks/useWidth', () => ({ useWidth: () => [600, () => undefined] }));

const METRICS = [
  { id: '1', unit: '°C' },
  { id: '2', unit: 'm/min' },
  { id: '3', unit: '°C' },
  { id: '4', unit: 'bar' },
] as Metric[];
const of = (form: ReadoutForm, ids: readonly string[], parts: ReadoutParts = {}): Readout =>
  makeReadout('r', form, {
    measures: ids.map((metricId) => ({ metricId, summary: 'mean', per: null })),
    ...parts,
  });
const trendOf = (...ids: string[]): Readout => of('trend', ids);

describe('the units of a trend', () => {
  it('are those of its lines, two at most, each with the first line that has it', () => {
    const units = unitsShown(trendOf('1', '3', '2', '4'), METRICS);
    expect(units.map(({ unit, measure }) => [unit, measure.metricId])).toEqual([
      ['°C', '1'],
      ['m/min', '2'],
    ]);
  });

  it('pass over a metric that is not there any more', () => {
    expect(unitsShown(trendOf('9', '2'), METRICS).map(({ unit }) => unit)).toEqual(['m/min']);
  });

  it('are one in groups, in proportion, and for other forms', () => {
    const both = ['1', '2'];
    for (const readout of [
      of('trend', both, { groupBy: { kind: 'asset' } }),
      of('trend', both, { normalise: { by: 'first' } }),
      of('gauge', both),
    ])
      expect(unitsShown(readout, METRICS)).toHaveLength(1);
  });
});

describe('the band of a readout', () => {
  function showSlot(first: Readout) {
    const last = { readout: first };
    function Holder() {
      const [readout, setReadout] = useState(first);
      last.readout = readout;
      return (
        <BandSlot
          readout={readout}
          metrics={METRICS}
          window={{ kind: 'rolling', count: 1, unit: 'day' }}
          unit="°C"
          decimals={1}
          onChange={(parts) => setReadout(withMatchingChoices(readout, parts))}
        />
      );
    }
    const view = renderScreen(<Holder />, {
      'POST /api/readings/distribution': {
        values: [1, 2, 3, 4, 5],
        bucket: 'day',
        interval: { start: 0, end: 1 },
      },
    });
    return { ...view, last };
  }

  it('is set for each unit of a trend, on past values of that', async () => {
    const { person, sent, last } = showSlot(trendOf('1', '2'));
    await person.click(await screen.findByRole('radio', { name: 'Lower is better' }));
    await person.click(screen.getByRole('radio', { name: 'm/min' }));
    expect(screen.getByRole('radio', { name: 'No band' }).getAttribute('aria-checked')).toBe('true');
    await waitFor(() => expect(sent.at(-1)!.body).toMatchObject({ measure: { metricId: '2' } }));
    await person.click(screen.getByRole('radio', { name: 'Higher is better' }));
    expect(last.readout.band).toMatchObject({ direction: 'lower' });
    expect(last.readout).toMatchObject({ secondBand: { direction: 'higher' } });
  });

  it('asks for no unit where there is one', async () => {
    showSlot(trendOf('1', '3'));
    expect(await screen.findByRole('radio', { name: 'No band' })).toBeTruthy();
    expect(screen.queryByRole('radio', { name: '°C' })).toBeNull();
  });
});
