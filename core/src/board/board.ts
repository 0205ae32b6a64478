import * as yup from 'yup';
import { bandSchema } from '../bands/targetBand';
import { measureSchema, MOST_MEASURES } from '../domain/measure';
import { groupBySchema, scopeSchema, WHOLE_SCOPE } from '../domain/query';
import { hoursSchema } from '../schemas/hours';
import { idText } from '../schemas/parts';
import { orNull, taggedUnion, type TypeOf, named } from '../schemas/shape';
import { BUCKETS } from '../time/buckets';
import { windowSchema } from '../time/windowSpec';

export const READOUT_FORMS = [
  'gauge',
  'straight',
  'tank',
  'lamp',
  'figure',
  'trend',
  'ring',
  'note',
] as const;
export type ReadoutForm = (typeof READOUT_FORMS)[number];

export const FORM_WORDS: Readonly<Record<ReadoutForm, string>> = {
  gauge: 'Gauge',
  straight: 'Straight gauge',
  tank: 'Tank',
  lamp: 'Lamp',
  figure: 'Figure',
  trend: 'Trend',
  ring: 'Proportion ring',
  note: 'Note',
};

/** How the values of a trend are drawn. */
export const TREND_MARKS = ['line', 'steps', 'area', 'columns', 'stacked'] as const;
export type TrendMark = (typeof TREND_MARKS)[number];

/** What a value is compared with. */
export const COMPARISONS = ['before', 'lastYear', 'none'] as const;
export type Comparison = (typeof COMPARISONS)[number];

export const DISPLAY_SCALES = ['units', 'thousands', 'millions'] as const;
export type DisplayScale = (typeof DISPLAY_SCALES)[number];

/** Where a round gauge draws the sectors of its band: on its scale, or slim inside or outside of it. */
export const SECTOR_PLACES = ['on', 'inside', 'outside'] as const;
export type SectorPlace = (typeof SECTOR_PLACES)[number];

/** The scale of gauges and of a trend's value axis. */
const scaleSchema = yup
  .object({
    /** null = from data, band and target, at nice numbers. */
    ends: yup
      .mixed<[number, number]>(isPair)
      .typeError('${path} are two numbers, low and high')
      .nullable()
      .default(null)
      .test('order', '${path}: the low end must lie below the high end', (ends) => !ends || ends[0] < ends[1])
      .meta({
        jsonSchema: { type: ['array', 'null'], items: { type: 'number' }, minItems: 2, maxItems: 2 },
      }),
    /** Do limits and target alone give the ends that are not given? Values beyond them stop there. */
    fromTarget: yup.boolean().default(false),
    reversed: yup.boolean().default(false),
    logarithmic: yup.boolean().default(false),
    /** Is an empty stretch of a trend's scale left out where values lie far apart? */
    broken: yup.boolean().default(false),
    sectors: yup.string().oneOf(SECTOR_PLACES).default('on'),
  })
  .noUnknown()
  .test('positive', '${path}: a logarithmic scale begins above 0', (scale) =>
    Boolean(!scale?.logarithmic || !scale.ends || scale.ends[0] > 0),
  );
export type ScaleChoice = TypeOf<typeof scaleSchema>;

function isPair(value: unknown): value is [number, number] {
  return Array.isArray(value) && value.length === 2 && value.every(Number.isFinite);
}

/** A linear scale with ends from the data. */
export const PLAIN_SCALE: ScaleChoice = {
  ends: null,
  fromTarget: false,
  reversed: false,
  logarithmic: false,
  broken: false,
  sectors: 'on',
};

const normaliseSchema = taggedUnion('Normalise', 'by', {
  first: {},
  attribute: { name: yup.string().max(100).required('Say by which attribute') },
});
/** How the lines of a trend are put into proportion; see `normalised`. */
export type Normalise = TypeOf<typeof normaliseSchema>;

/** Lines of a trend laid over one another from the date in an attribute of each asset on. */
const alignmentSchema = yup
  .object({
    attribute: yup.string().trim().min(1).max(100).required(),
    days: yup.number().integer().min(1).max(3660).required(),
  })
  .noUnknown();

const readoutSchema = named(
  'Readout',
  yup
    .object({
      id: yup.string().min(1).max(40).required(),
      form: yup.string().oneOf(READOUT_FORMS).required(),
      /** null = made from the choices. */
      title: yup.string().trim().max(200).nullable().default(null),
      /** What stands under the readout; null = made from subset and hours. */
      footnote: yup.string().trim().max(500).nullable().default(null),
      /** The indicator it shows, which governs measure, band and format; null = its own choices. */
      indicatorId: idText().nullable().default(null),
      /** What is shown; none only in a note, else the first leads and gives unit, band and zone. */
      measures: yup
        .array(measureSchema.required())
        .max(MOST_MEASURES)
        .required()
        .test('some', '${path}: say what is shown', (list, { parent }) =>
          Boolean((parent as { form?: unknown }).form === 'note' || !list || list.length > 0),
        ),
      /** null = the board's window. */
      window: orNull(windowSchema),
      /** For a trend: summarised by local hour, day …; null = the samples themselves. */
      bucket: yup.string().oneOf(BUCKETS).nullable().default(null),
      /** For a trend by period: each value added to those before it. */
      cumulative: yup.boolean().default(false),
      /** One value for each asset, plant, kind or attribute; null = the metrics as they are. */
      groupBy: orNull(groupBySchema),
      /** Are assets without the attribute of the grouping kept as a group of their own? */
      keepBlanks: yup.boolean().default(true),
      /** Only which assets, within the board's scope; null = all of it. */
      scope: scopeSchema.nullable().default(null),
      /** Only which hours, within the board's; null = all. */
      hours: hoursSchema.nullable().default(null),
      band: orNull(bandSchema),
      /** For a trend with lines of two units: the band of the second, in that unit. */
      secondBand: orNull(bandSchema),
      compare: yup.string().oneOf(COMPARISONS).default('before'),
      /** null = chosen from the size of the numbers. */
      decimals: yup.number().integer().min(0).max(9).nullable().default(null),
      display: yup.string().oneOf(DISPLAY_SCALES).default('units'),
      mark: yup.string().oneOf(TREND_MARKS).default('line'),
      scale: scaleSchema.default({ ...PLAIN_SCALE }),
      /** Does a trend write values at the points of its lines, as many as fit? */
      pointLabels: yup.boolean().default(false),
      /** For a trend: null = values as they are. */
      normalise: orNull(normaliseSchema),
      /** For a trend of single metrics: by days since a start event; null = by date. */
      align: alignmentSchema.nullable().default(null),
      /** Columns of 12 and rows of 76 px on a wide sheet; null = as usual for the form. */
      size: yup
        .object({
          columns: yup.number().integer().min(2).max(12).required(),
          rows: yup.number().integer().min(1).max(12).required(),
        })
        .noUnknown()
        .nullable()
        .default(null),
      /** Markdown of a note. */
      text: yup.string().max(20_000).default(''),
      /** Where its numbers also lead: a page of ours ("/boards/3") or an address; null = nowhere else. */
      link: yup.string().trim().max(500).nullable().default(null),
    })
    .noUnknown(),
);

/** One element of a board. */
export interface Readout extends TypeOf<typeof readoutSchema> {
  /**
   * What its indicator is compared with where that is not an earlier window, in the unit of the measure. Only on a
   * readout that follows one as it is shown: it is not part of the document.
   */
  readonly reference?: { readonly kind: 'fixed' | 'baseline' | 'measure'; readonly value: number | null };
}

export const BOARD_FORMAT_VERSION = 2;
const MOST_READOUTS = 60;
/** So many readings are asked for at once: more than a board may have readouts. */
export const MOST_ASKS = 80;

/** What a board holds, as it is stored, sent and written to a file. */
export const boardDocumentSchema = named(
  'BoardDocument',
  yup
    .object({
      version: yup
        .number()
        .oneOf([BOARD_FORMAT_VERSION] as const)
        .required(),
      window: windowSchema,
      scope: scopeSchema.default(WHOLE_SCOPE),
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
    .noUnknown(),
);
export type BoardDocument = TypeOf<typeof boardDocumentSchema>;

export const boardTitleSchema = yup.string().trim().min(1, 'A board needs a title').max(120).required();

/** A readout with nothing chosen yet. */
export function emptyReadout(id: string, form: ReadoutForm): Readout {
  return {
    id,
    form,
    title: null,
    footnote: null,
    indicatorId: null,
    measures: [],
    window: null,
    bucket: null,
    cumulative: false,
    groupBy: null,
    keepBlanks: true,
    scope: null,
    hours: null,
    band: null,
    secondBand: null,
    // A trend is compared only where it is asked for: a second line is no small thing.
    compare: form === 'trend' ? 'none' : 'before',
    decimals: null,
    display: 'units',
    mark: 'line',
    scale: PLAIN_SCALE,
    pointLabels: false,
    normalise: null,
    align: null,
    size: null,
    text: '',
    link: null,
  };
}
