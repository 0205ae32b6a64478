import * as yup from 'yup';
import { wholeNumber } from '@vivid-beacon/core';
import { emptyBalance, unexplained, type Balance } from '@vivid-beacon/core/src/intakeFiles';

const count = (): yup.NumberSchema<number> => wholeNumber().min(0).required();
const counts = <Key extends string>(names: Readonly<Record<Key, number>>) =>
  yup
    .object(Object.fromEntries(Object.keys(names).map((name) => [name, count()])))
    .noUnknown()
    .required();

const EMPTY = emptyBalance();

/** The balance of a file: counts that add up to its lines. */
export const balanceSchema = yup.mixed<Balance>().test('balance', async function (value) {
  const { leftOut, values, ...rest } = EMPTY;
  const shape = counts(rest).concat(
    yup.object({ leftOut: counts(leftOut), values: counts(values) }) as yup.ObjectSchema<object>,
  );
  try {
    await shape.validate(value, { strict: true });
  } catch (error) {
    return this.createError({ message: (error as Error).message });
  }
  const lost = unexplained(value as Balance);
  return (
    lost === 0 ||
    this.createError({
      message: `The balance does not add up: ${lost} lines are neither taken, refused, left out nor repeated.`,
    })
  );
});
