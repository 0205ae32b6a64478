import { formatLength } from '../../format/format';
import { DAY_MS, MINUTE_MS } from '../../time/lengths';
import { lengthMs } from './fields';
import { plainSignal, testKind } from './testKind';

const DEFAULT_INTERVALS = 10;

/** No sample for longer than `forMs`. Time alone trips it; the next sample ends it. */
export const silenceTest = testKind('silence', {
  forMs: lengthMs(MINUTE_MS, 31 * DAY_MS, 'Silence is reported after 1 minute to 31 days'),
})({
  label: 'silence',
  ending: 'silent',
  metrics: ['level', 'amount', 'register', 'state'],
  hasLimit: false,
  begin: ({ intervalMs }) => ({
    kind: 'silence',
    forMs: Math.max(5 * MINUTE_MS, intervalMs * DEFAULT_INTERVALS),
  }),
  words: ({ forMs }) => `silent for ${formatLength(forMs)}`,
  milder: (test) => (test.forMs < 2 * MINUTE_MS ? null : { ...test, forMs: Math.round(test.forMs / 2) }),
  isMilder: (milder, test) => milder.forMs < test.forMs,
  threshold: () => ({ limit: 0.5, deadband: 0 }),
  signal: (_, __, series) => plainSignal(new Float64Array(series.v.length), series),
  contextStart: ({ forMs }, _, at) => at - 2 * forMs,
  silentAfterMs: ({ forMs }) => forMs,
});
