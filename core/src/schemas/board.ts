import * as yup from 'yup';
import {
  BOARD_FORMAT_VERSION,
  COMPARISONS,
  DISPLAY_SCALES,
  MOST_MEASURES,
  PLAIN_SCALE,
  READOUT_FORMS,
  SECTOR_PLACES,
  TREND_MARKS,
} from '../board/board';
import { BUCKETS } from '../time/buckets';
import { bandSchema, finite, idText, measureSchema, windowSchema } from './parts';
import { groupBySchema, hoursSchema, scopeSchema } from './query';

const MOST_READOUTS = 60;

const sizeSchema = yup
  .object({
    columns: yup.number().integer().min(2).max(12).required(),
    rows: yup.number().integer().min(1).max(12).required(),
  })
  .noUnknown();

const scaleSchema = yup
  .object({
    ends: yup
      .array(finite().required())
      .length(2, '${path} are two numbers, low and high')
      .nullable()
      .default(null)
      .test(
        'order',
        '${path}: the low end must lie below the high end',
        (ends) => !ends || ends[0] < ends[1],
      ),
    fromTarget: yup.boolean().default(false),
    reversed: yup.boolean().default(false),
    logarithmic: yup.boolean().default(false),
    broken: yup.boolean().default(false),
    sectors: yup
      .string()
      .oneOf([...SECTOR_PLACES])
      .default('on'),
  })
  .noUnknown()
  .test('positive', '${path}: a logarithmic scale begins above 0', (scale) =>
    Boolean(!scale?.logarithmic || !scale.ends || scale.ends[0] > 0),
  );

const normaliseSchema = yup
  .object({
    by: yup.string().oneOf(['first', 'attribute']).required(),
    name: yup
      .string()
      .max(100)
      .when('by', {
        is: 'attribute',
        then: (s) => s.required('Say by which attribute'),
        otherwise: (s) => s.strip(),
      }),
  })
  .noUnknown();

export const readoutSchema = yup
  .object({
    id: yup.string().min(1).max(40).required(),
    form: yup
      .string()
      .oneOf([...READOUT_FORMS])
      .required(),
    title: yup.string().trim().max(200).nullable().default(null),
    footnote: yup.string().trim().max(500).nullable().default(null),
    indicatorId: idText().nullable().default(null),
    measures: yup
      .array(measureSchema.required())
      .max(MOST_MEASURES)
      .required()
      .when('form', { is: 'note', otherwise: (list) => list.min(1, '${path}: say what is shown') }),
    window: windowSchema.nullable().default(null),
    bucket: yup
      .string()
      .oneOf([...BUCKETS])
      .nullable()
      .default(null),
    cumulative: yup.boolean().default(false),
    groupBy: groupBySchema.nullable().default(null),
    keepBlanks: yup.boolean().default(true),
    scope: scopeSchema.nullable().default(null),
    hours: hoursSchema.nullable().default(null),
    band: bandSchema.nullable().default(null),
    secondBand: bandSchema.nullable().default(null),
    compare: yup
      .string()
      .oneOf([...COMPARISONS])
      .default('before'),
    decimals: yup.number().integer().min(0).max(9).nullable().default(null),
    display: yup
      .string()
      .oneOf([...DISPLAY_SCALES])
      .default('units'),
    mark: yup
      .string()
      .oneOf([...TREND_MARKS])
      .default('line'),
    scale: scaleSchema.default({ ...PLAIN_SCALE }),
    pointLabels: yup.boolean().default(false),
    normalise: normaliseSchema.nullable().default(null),
    align: yup
      .object({
        attribute: yup.string().trim().min(1).max(100).required(),
        days: yup.number().integer().min(1).max(3660).required(),
      })
      .noUnknown()
      .nullable()
      .default(null),
    size: sizeSchema.nullable().default(null),
    text: yup.string().max(20_000).default(''),
    link: yup.string().trim().max(500).nullable().default(null),
  })
  .noUnknown();

export const boardDocumentSchema = yup
  .object({
    version: yup.number().oneOf([BOARD_FORMAT_VERSION]).required(),
    window: windowSchema.required(),
    scope: scopeSchema.default({ assetIds: null, attributes: [] }),
    hours: hoursSchema.nullable().default(null),
    readouts: yup
      .array(readoutSchema.required())
      .max(MOST_READOUTS)
      .required()
      .test('ids', '${path}: two readouts have the same id', (list) =>
        Boolean(
          !list || list.some((each) => !each) || new Set(list.map(({ id }) => id)).size === list.length,
        ),
      ),
  })
  .noUnknown();

export const boardTitleSchema = yup.string().trim().min(1, 'A board needs a title').max(120).required();
