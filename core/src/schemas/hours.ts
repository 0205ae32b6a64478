import { named } from './shape';
import * as yup from 'yup';
import type { HoursFilter } from '../time/hoursFilter';
import { CLOCK } from './parts';

const MAX_PARTS = 30;

const again = { $ref: '#/components/schemas/RecurringHours' };
const clock = { type: 'string', pattern: CLOCK.source };
const numbers = (most: number) => ({ type: 'array', items: { type: 'integer', minimum: 1, maximum: most } });
const ofKind = (kind: string, properties: object) => ({
  type: 'object',
  properties: { kind: { const: kind }, ...properties },
  required: ['kind', ...Object.keys(properties)],
});
/** What it checks, in JSON Schema. */
const jsonSchema = {
  oneOf: [
    ofKind('clock', { from: clock, to: clock }),
    ofKind('weekdays', { days: numbers(7) }),
    ofKind('months', { months: numbers(12) }),
    ofKind('working', { inside: { type: 'boolean' } }),
    ofKind('shift', { name: { type: 'string', maxLength: 80 } }),
    ofKind('all', { of: { type: 'array', items: again } }),
    ofKind('any', { of: { type: 'array', items: again } }),
    ofKind('not', { of: again }),
  ],
};

/** Recurring hours: checked by hand because they nest. */
export const hoursSchema = named(
  'RecurringHours',
  yup
    .mixed<HoursFilter>()
    .test('hours', function (value) {
      if (value === undefined || value === null) return true;
      const wrong = wrongHours(value, { left: MAX_PARTS }, this.path || 'hours');
      return wrong === null || this.createError({ message: wrong });
    })
    .meta({ jsonSchema }),
);

/** What is wrong with recurring hours, or null. */
function wrongHours(value: unknown, count: { left: number }, path: string): string | null {
  if (--count.left < 0) return `${path}: at most ${MAX_PARTS} conditions can be joined`;
  if (typeof value !== 'object' || value === null) return `${path} must be a condition`;
  const each = value as Record<string, unknown>;
  const numbers = (list: unknown, most: number): boolean =>
    Array.isArray(list) && list.every((n) => Number.isInteger(n) && n >= 1 && n <= most);
  switch (each.kind) {
    case 'clock':
      return CLOCK.test(String(each.from)) && CLOCK.test(String(each.to))
        ? null
        : `${path}: times of day are written as 06:30`;
    case 'weekdays':
      return numbers(each.days, 7) ? null : `${path}: weekdays are numbers from 1 (Monday) to 7`;
    case 'months':
      return numbers(each.months, 12) ? null : `${path}: months are numbers from 1 to 12`;
    case 'working':
      return typeof each.inside === 'boolean' ? null : `${path}: inside must be true or false`;
    case 'shift':
      return typeof each.name === 'string' && each.name.length <= 80 ? null : `${path}: name the shift`;
    case 'all':
    case 'any': {
      if (!Array.isArray(each.of)) return `${path}: of must be a list of conditions`;
      for (const [i, part] of each.of.entries()) {
        const wrong = wrongHours(part, count, `${path}.of[${i}]`);
        if (wrong) return wrong;
      }
      return null;
    }
    case 'not':
      return wrongHours(each.of, count, `${path}.of`);
    default:
      return `${path}: unknown condition "${String(each.kind).slice(0, 40)}"`;
  }
}
