import * as yup from 'yup';
import { MOST_MEASURES } from '../board/board';
import { SUMMARIES } from '../domain/metric';
import { BUCKETS } from '../time/buckets';
import type { HoursFilter } from '../time/hours';
import { bandSchema, CLOCK, finite, idText, windowSchema } from './parts';

const MOST_PARTS = 30;

/** Recurring hours: checked by hand because they nest. */
export const hoursSchema = yup.mixed<HoursFilter>().test('hours', function (value) {
  if (value === undefined || value === null) return true;
  const wrong = wrongHours(value, { left: MOST_PARTS }, this.path || 'hours');
  return wrong === null || this.createError({ message: wrong });
});

/** What is wrong with recurring hours, or null. */
function wrongHours(value: unknown, count: { left: number }, path: string): string | null {
  if (--count.left < 0) return `${path}: at most ${MOST_PARTS} conditions can be joined`;
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

const summarySchema = yup
  .string()
  .oneOf([...SUMMARIES])
  .required();

const selectionSchema = yup
  .object({
    metricIds: yup.array(idText().required()).min(1).max(5000).optional(),
    metricName: yup.string().trim().min(1).max(200).optional(),
  })
  .noUnknown()
  .test('one', '${path}: give metricIds or metricName', (value) =>
    Boolean(value && (value.metricIds ? !value.metricName : value.metricName)),
  );

/** Attributes that assets must have. */
export const attributeConditionsSchema = () =>
  yup
    .array(
      yup
        .object({
          name: yup.string().min(1).max(100).required(),
          values: yup.array(yup.mixed<string | number>().required()).min(1).max(500).required(),
        })
        .noUnknown(),
    )
    .max(20)
    .default([]);

export const scopeSchema = yup
  .object({
    assetIds: yup.array(idText().required()).max(5000).nullable().default(null),
    attributes: attributeConditionsSchema(),
  })
  .noUnknown();

export const groupBySchema = yup
  .object({
    kind: yup.string().oneOf(['metric', 'asset', 'plant', 'assetKind', 'attribute', 'all']).required(),
    name: yup
      .string()
      .max(100)
      .when('kind', {
        is: 'attribute',
        then: (s) => s.required('Say by which attribute'),
        otherwise: (s) => s.strip(),
      }),
  })
  .noUnknown();

const queryMeasureSchema = yup
  .object({
    select: selectionSchema.required(),
    summary: summarySchema,
    per: yup
      .object({ select: selectionSchema.required(), summary: summarySchema, factor: finite().default(1) })
      .noUnknown()
      .nullable()
      .default(null),
    band: bandSchema.nullable().default(null),
  })
  .noUnknown();

export const querySchema = yup
  .object({
    measures: yup.array(queryMeasureSchema.required()).min(1).max(MOST_MEASURES).required(),
    window: windowSchema.required(),
    bucket: yup
      .string()
      .oneOf([...BUCKETS])
      .nullable()
      .default(null),
    groupBy: groupBySchema.default({ kind: 'metric' }),
    scope: scopeSchema.default({ assetIds: null, attributes: [] }),
    hours: hoursSchema.nullable().default(null),
    compare: yup
      .string()
      .oneOf(['none', 'before', 'lastYear'] as const)
      .default('none'),
    provenance: yup.boolean().default(false),
  })
  .noUnknown()
  .test(
    'whole',
    'Values are compared and explained over the whole window, not by period: leave out bucket, or compare and provenance',
    ({ bucket, compare, provenance }) => bucket === null || (compare === 'none' && !provenance),
  );
