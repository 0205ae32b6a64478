import { makeReadout } from './board';
import { seenReadouts } from './unseen';

const mean = (metricId: string, per: string | null = null) => ({
  metricId,
  summary: 'mean' as const,
  per: per === null ? null : { metricId: per, summary: 'sum' as const, unit: null, factor: 1 },
});

describe('seenReadouts', () => {
  const own = makeReadout('a', 'figure', { measures: [mean('1')] });
  const mixed = makeReadout('b', 'trend', { measures: [mean('1'), mean('2')] });
  const ratio = makeReadout('c', 'figure', { measures: [mean('1', '2')] });
  const note = makeReadout('d', 'note', {});
  const all = [own, mixed, ratio, note];

  it('leaves a readout out whole, by any measure or its other side, and no note', () => {
    expect(seenReadouts(all, ['2'])).toEqual({ shown: [own, note], leftOut: [mixed, ratio] });
  });

  it('leaves nothing out for whoever sees everything', () => {
    expect(seenReadouts(all, [])).toEqual({ shown: all, leftOut: [] });
  });
});
