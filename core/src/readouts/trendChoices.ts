import * as yup from 'yup';
import { bandSchema } from '../bands/targetBand';
import { DEFAULT_TREND_SCALE, trendScaleSchema } from '../board/scaleChoice';
import { orNull, taggedUnion, type TypeOf } from '../schemas/shape';
import { BUCKETS } from '../time/buckets';
import { asked } from './ask';

/** How the values of a trend are drawn. */
export const TREND_MARKS = ['line', 'steps', 'area', 'columns', 'stacked'] as const;
export type TrendMark = (typeof TREND_MARKS)[number];

const normaliseSchema = taggedUnion('Normalise', 'by', { first: {} });
/** How the lines of a trend are normalised; see `inPercentOfFirst`. A measure itself may be per an attribute. */
export type Normalise = TypeOf<typeof normaliseSchema>;

/** Aligns the lines of a trend by a date in an attribute of each asset. */
const alignmentSchema = yup
  .object({
    attribute: yup.string().trim().min(1).max(100).required(),
    days: yup.number().integer().min(1).max(3660).required(),
  })
  .noUnknown();

/** The choices of a trend besides those of every readout. */
export const trendFields = {
  /** Summarised by local hour, day …; null = the samples themselves. */
  bucket: yup.string().oneOf(BUCKETS).nullable().default(null),
  mark: asked(yup.string().oneOf(TREND_MARKS).default('line'), {
    label: 'Drawn as',
    words: {
      line: 'Line',
      steps: 'Steps',
      area: 'Area',
      columns: 'Columns',
      stacked: 'Stacked areas',
    },
  }),
  /** Whether each period adds to the ones before. */
  cumulative: asked(yup.boolean().default(false), {
    label: 'Values',
    words: { false: 'each on its own', true: 'running total' },
  }),
  /** Whether values are written at the points, as many as fit. */
  pointLabels: asked(yup.boolean().default(false), {
    label: 'Numbers at points',
    words: { false: 'no numbers at points', true: 'as many as fit' },
    unless: { mark: 'columns' },
  }),
  scale: trendScaleSchema.default({ ...DEFAULT_TREND_SCALE }),
  /** Band of the second unit, in that unit. */
  secondBand: orNull(bandSchema),
  /** null = not normalised. */
  normalise: orNull(normaliseSchema),
  /** For single metrics: days since a start event; null = by date. */
  align: alignmentSchema.nullable().default(null),
};

export type TrendChoices = TypeOf<ReturnType<typeof yup.object<yup.AnyObject, typeof trendFields>>>;

export const DEFAULT_TREND: TrendChoices = {
  bucket: null,
  mark: 'line',
  cumulative: false,
  pointLabels: false,
  scale: DEFAULT_TREND_SCALE,
  secondBand: null,
  normalise: null,
  align: null,
};
