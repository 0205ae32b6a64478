import { named } from './shape';
import * as yup from 'yup';
import { emptyBalance, unexplained, type Balance } from '../intake/balance';
import { wholeNumber } from './parts';

const count = () => wholeNumber().min(0).required();
const counts = (names: object) =>
  yup
    .object(Object.fromEntries(Object.keys(names).map((name) => [name, count()])))
    .noUnknown()
    .required();

const { leftOut, values, ...rest } = emptyBalance();
const shapeOfBalance = counts(rest).shape({ leftOut: counts(leftOut), values: counts(values) });

/** The balance of a file: counts that add up to its lines. */
export const balanceSchema = named(
  'Balance',
  yup
    .mixed<Balance>()
    .test('balance', function (value) {
      // Whether there must be one is another question.
      if (value === undefined) return true;
      try {
        shapeOfBalance.validateSync(value, { strict: true });
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
    })
    .meta({ shape: shapeOfBalance }),
);
