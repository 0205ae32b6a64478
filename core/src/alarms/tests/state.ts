import * as yup from 'yup';
import { RUNNING } from '../../domain/metric';
import { wholeNumber } from '../../schemas/parts';
import { plainSignal, testKind } from './testKind';

/** The state is (`is`), or is not, the one with this code. */
export const stateTest = testKind('state', {
  code: wholeNumber().required('Give the state'),
  is: yup.boolean().required(),
})({
  label: 'a state',
  ending: 'not running',
  metrics: ['state'],
  hasLimit: false,
  begin: () => ({ kind: 'state', code: 1, is: false }),
  words: ({ code, is }) => stateTestWords(code, is),
  threshold: () => ({ limit: 0.5, deadband: 0 }),
  signal: ({ code, is }, _, series) =>
    plainSignal(
      series.v.map((value) => ((value === code) === is ? 1 : 0)),
      series,
    ),
});

/** A state code in words. */
export function stateTestWords(code: number, is: boolean): string {
  const word = code === RUNNING ? 'running' : code === 0 ? 'stopped' : `in state ${code}`;
  return is ? word : `not ${word}`;
}
