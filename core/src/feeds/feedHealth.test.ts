import { QUALITY } from '../series/quality';
import { ONE_HOUR, MINUTE } from '../testing/makeSeries';
import { feedHealth, type FeedFacts } from './feedHealth';

const facts = (part: Partial<FeedFacts> = {}): FeedFacts => ({
  kind: 'level',
  intervalMs: MINUTE,
  maxGapMs: 10 * MINUTE,
  last: { t: 0, quality: QUALITY.good },
  ...part,
});

describe('feedHealth', () => {
  it('calls a feed silent after its longest allowed gap, at least three intervals', () => {
    expect(feedHealth(facts(), 10 * MINUTE).state).toBe('reporting');
    expect(feedHealth(facts(), 11 * MINUTE)).toMatchObject({ state: 'silent', quietMs: 11 * MINUTE });
    expect(feedHealth(facts({ intervalMs: ONE_HOUR, maxGapMs: ONE_HOUR }), 2 * ONE_HOUR).state).toBe(
      'reporting',
    );
    expect(feedHealth(facts({ last: null }), 0).state).toBe('never');
  });

  it('tells how late samples come', () => {
    expect(feedHealth(facts({ receivedAt: 2 * MINUTE }), 3 * MINUTE).lagMs).toBe(2 * MINUTE);
    expect(feedHealth(facts(), MINUTE).lagMs).toBeNull();
  });

  it('takes a level that never moves for a stuck sensor, but not a state or a register', () => {
    const stuck = { last: { t: 3 * ONE_HOUR, quality: 0 }, flatSince: 0 };
    expect(feedHealth(facts(stuck), 3 * ONE_HOUR)).toMatchObject({ state: 'flat', flatMs: 3 * ONE_HOUR });
    expect(feedHealth(facts({ ...stuck, kind: 'state' }), 3 * ONE_HOUR).state).toBe('reporting');
    expect(feedHealth(facts({ ...stuck, flatSince: 2 * ONE_HOUR }), 3 * ONE_HOUR).state).toBe('reporting');
  });

  it('notices a clock that runs ahead for a day, and a value outside the plausible range', () => {
    const ahead = facts({ aheadMs: 10 * MINUTE, aheadAt: 0 });
    expect(feedHealth(ahead, MINUTE).state).toBe('clockAhead');
    expect(feedHealth({ ...ahead, last: { t: 25 * ONE_HOUR, quality: 0 } }, 25 * ONE_HOUR).state).toBe(
      'reporting',
    );
    expect(feedHealth(facts({ last: { t: 0, quality: QUALITY.implausible } }), MINUTE).state).toBe(
      'outOfRange',
    );
  });
});
