import { useState } from 'react';
import { screen } from '@testing-library/react';
import { levelOf, type TargetBand } from '@vivid-beacon/core';
import { limitAt, withBandLimit } from '../../charts/histogram';
import { renderScreen } from '../../testing/renderScreen';
import { BandPanel } from './BandPanel';
import { problemOf, problemOfThresholds } from './bandProblem';

jest.setTimeout(30_000);
jest.mock('../../hooks/useWidth', () => ({ useWidth: () => [600, () => undefined] }));

const LOWER: TargetBand = { direction: 'lower', caution: 3, breach: 4, target: 2 };
const MEASURE = { metricId: '1', summary: 'mean' as const, per: null };
const CUTS: TargetBand = {
  direction: 'cuts',
  cuts: [3, 4],
  levels: ['clear', 'caution', 'breach'],
  target: 2,
};

/** The panel as it stands in an editor; `last` is what was set last. */
function showPanel(first: TargetBand | null) {
  const last: { band: TargetBand | null } = { band: first };
  function Holder() {
    const [band, setBand] = useState(first);
    return (
      <BandPanel
        measure={MEASURE}
        band={band}
        window={{ kind: 'rolling', count: 1, unit: 'day' }}
        unit="%"
        decimals={1}
        onChange={(next) => {
          last.band = next;
          setBand(next);
        }}
      />
    );
  }
  const { person } = renderScreen(<Holder />, {
    'POST /api/readings/distribution': {
      values: [1, 2, 3, 4, 5],
      bucket: 'day',
      interval: { start: 0, end: 1 },
    },
  });
  return { person, last };
}

describe('the panel of a target band', () => {
  it('goes on from the band there is when custom thresholds are chosen', async () => {
    const { person, last } = showPanel(LOWER);
    await person.click(await screen.findByRole('radio', { name: 'Custom thresholds' }));
    expect(last.band).toEqual(CUTS);
    await person.click(screen.getByRole('button', { name: 'Add a threshold' }));
    expect(last.band).toMatchObject({ cuts: expect.arrayContaining([3, 4]) });
    const { cuts } = last.band as Extract<TargetBand, { direction: 'cuts' }>;
    expect(cuts).toHaveLength(3);
    // Adding a threshold changes no level.
    for (const value of [0, 2.9, 3, 3.5, 4, 5]) {
      expect(levelOf(last.band!, value)).toBe(levelOf(LOWER, value));
    }
    // Each threshold is a divider on the past values too.
    expect(screen.getAllByRole('slider')).toHaveLength(3);
  });

  it('names a cut that is out of order, and tells the shares of past values', async () => {
    const { person, last } = showPanel(CUTS);
    expect(await screen.findByText('60 %')).toBeTruthy();
    const second = screen.getByRole('textbox', { name: 'Threshold 2' });
    await person.clear(second);
    await person.type(second, '1');
    expect(screen.getByText('Threshold 2 must be at least threshold 1 (3), got 1.')).toBeTruthy();
    expect(problemOf(last.band!)?.path).toBe('band.cut1');
    await person.click(screen.getByRole('button', { name: 'Remove threshold 2' }));
    expect(last.band).toMatchObject({ cuts: [3], levels: ['clear', 'caution'] });
    // The last one cannot be removed.
    expect(screen.getByRole('button', { name: 'Remove threshold 1' }).getAttribute('aria-disabled')).toBe(
      'true',
    );
  });

  it('takes the band away again', async () => {
    const { person, last } = showPanel(LOWER);
    await person.click(await screen.findByRole('radio', { name: 'No band' }));
    expect(last.band).toBeNull();
    await person.click(screen.getByRole('radio', { name: 'Custom thresholds' }));
    expect(last.band).toMatchObject({
      direction: 'cuts',
      levels: expect.arrayContaining(['clear', 'breach']),
    });
  });
});

describe('limits of custom thresholds', () => {
  it('stop at their neighbours when dragged, not when typed', () => {
    expect(withBandLimit(CUTS, 'cut0', 9)).toMatchObject({ cuts: [4, 4] });
    expect(withBandLimit(CUTS, 'cut1', 1)).toMatchObject({ cuts: [3, 3] });
    expect(limitAt(CUTS, 'cut0', 9)).toMatchObject({ cuts: [9, 4] });
    expect(limitAt(LOWER, 'breach', 9)).toMatchObject({ caution: 3, breach: 9 });
  });

  it('are checked in percent of a target too', () => {
    expect(
      problemOfThresholds({ cuts: [95, 85], levels: ['breach', 'caution', 'clear'] })?.message,
    ).toContain('Threshold 2');
    expect(problemOfThresholds({ cuts: [85, 95], levels: ['breach', 'caution', 'clear'] })).toBeNull();
  });
});
