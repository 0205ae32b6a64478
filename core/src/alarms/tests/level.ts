import * as yup from 'yup';
import { LEVEL_WORDS, type Level } from '../../bands/targetBand';
import { testKind } from './testKind';

/** How serious a level is, as a number; NaN = not known. */
const SEVERITY_OF: Readonly<Record<Level, number>> = { clear: 0, caution: 1, breach: 2, nodata: NaN };

/** An indicator is on a level at least as serious as `from`, by its own target band and the target of each period. */
export const levelTest = testKind('level', {
  from: yup
    .string()
    .oneOf(['caution', 'breach'] as const)
    .required(),
})({
  label: 'its own target band',
  ending: 'off target',
  metrics: [],
  ofPeriods: 'indicator',
  hasLimit: false,
  begin: () => ({ kind: 'level', from: 'breach' }),
  words: ({ from }) =>
    from === 'breach'
      ? `in ${LEVEL_WORDS.breach} by its target band`
      : `in ${LEVEL_WORDS.caution} or ${LEVEL_WORDS.breach} by its target band`,
  milder: ({ from }) => (from === 'breach' ? { kind: 'level', from: 'caution' } : null),
  isMilder: (milder, test) => milder.from === 'caution' && test.from === 'breach',
  threshold: ({ from }) => ({ limit: from === 'breach' ? 1.5 : 0.5, deadband: 0 }),
  signal: (_, { levelAt }, { t, v }) => ({
    x: t.map((at) => SEVERITY_OF[levelAt?.(at) ?? 'nodata']),
    shown: v,
    memory: undefined,
  }),
});
