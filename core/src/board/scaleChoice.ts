import * as yup from 'yup';
import type { TypeOf } from '../schemas/shape';

/** Where a round gauge draws its sectors: on the scale, or as a slim ring inside or outside it. */
export const SECTOR_PLACES = ['on', 'inside', 'outside'] as const;
export type SectorPlace = (typeof SECTOR_PLACES)[number];

/** What points at the value of a round gauge: a beam of light, a line, or a mark on the ring alone. */
export const GAUGE_MARKERS = ['beam', 'line', 'mark'] as const;
export type GaugeMarker = (typeof GAUGE_MARKERS)[number];

const scaleFields = {
  /** null = automatic, from data, band and target, at round numbers. */
  ends: yup
    .mixed<[number, number]>(isPair)
    .typeError('${path} are two numbers, low and high')
    .nullable()
    .default(null)
    .test('order', '${path}: the low end must lie below the high end', (ends) => !ends || ends[0] < ends[1])
    .meta({
      jsonSchema: { type: ['array', 'null'], items: { type: 'number' }, minItems: 2, maxItems: 2 },
    }),
  /** Whether open ends follow limits and target only; values beyond them are drawn at the end. */
  fromTarget: yup.boolean().default(false),
  reversed: yup.boolean().default(false),
  logarithmic: yup.boolean().default(false),
};

const scaleOf = <More extends yup.ObjectShape>(more: More) =>
  yup
    .object({ ...scaleFields, ...more })
    .noUnknown()
    .test('positive', '${path}: a logarithmic scale begins above 0', (value) => {
      const scale = value as { ends?: [number, number] | null; logarithmic?: boolean } | undefined;
      return !scale?.logarithmic || !scale.ends || scale.ends[0] > 0;
    });

/** The scale that values are drawn on. */
export const scaleSchema = scaleOf({});
export type ScaleChoice = TypeOf<typeof scaleSchema>;

/** Of a round gauge. */
export const roundScaleSchema = scaleOf({
  sectors: yup.string().oneOf(SECTOR_PLACES).default('on'),
  /** Whether graduations are drawn, and numbers at them. */
  graduations: yup.boolean().default(true),
  labels: yup.boolean().default(true),
  marker: yup.string().oneOf(GAUGE_MARKERS).default('beam'),
});
export type RoundScale = TypeOf<typeof roundScaleSchema>;

/** Of a trend's value axis. */
export const trendScaleSchema = scaleOf({
  /** Whether an empty stretch of the scale is left out if values are far apart. */
  broken: yup.boolean().default(false),
});
export type TrendScale = TypeOf<typeof trendScaleSchema>;

/** A linear scale with ends from the data. */
export const DEFAULT_SCALE: ScaleChoice = {
  ends: null,
  fromTarget: false,
  reversed: false,
  logarithmic: false,
};
export const DEFAULT_ROUND_SCALE: RoundScale = {
  ...DEFAULT_SCALE,
  sectors: 'on',
  graduations: true,
  labels: true,
  marker: 'beam',
};
export const DEFAULT_TREND_SCALE: TrendScale = { ...DEFAULT_SCALE, broken: false };

function isPair(value: unknown): value is [number, number] {
  return Array.isArray(value) && value.length === 2 && value.every(Number.isFinite);
}
