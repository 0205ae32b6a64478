import { READOUT_FORMS } from '../readouts/forms';
import { emptyReadout, makeReadout } from './board';
import { offeredSlots } from './offeredSlots';

describe('offeredSlots', () => {
  it('leaves the window of a trend to be chosen, and that of one value to its indicator', () => {
    expect(offeredSlots(makeReadout('r', 'trend', { indicatorId: '1' }))).toEqual([
      'metric',
      'window',
      'bucket',
      'appearance',
    ]);
    expect(offeredSlots(makeReadout('r', 'gauge', { indicatorId: '1' }))).toEqual(['metric', 'appearance']);
  });

  it('takes no further measures beside groups', () => {
    const alone = emptyReadout('r', 'gauge');
    expect(offeredSlots(alone)).toContain('more');
    expect(offeredSlots({ ...alone, groupBy: { kind: 'asset' } })).not.toContain('more');
  });

  it.each(READOUT_FORMS)('of a %s always has how it is shown', (form) => {
    expect(offeredSlots(emptyReadout('r', form))).toContain('appearance');
  });
});
