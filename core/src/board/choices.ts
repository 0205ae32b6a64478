import * as yup from 'yup';
import { bandSchema } from '../bands/targetBand';
import { measureSchema, MAX_MEASURES } from '../domain/measure';
import { groupBySchema, scopeSchema } from '../domain/query';
import { hoursSchema } from '../schemas/hours';
import { idText } from '../schemas/parts';
import { orNull, type TypeOf } from '../schemas/shape';
import { windowSchema } from '../time/windowSpec';

/** What a value is compared with. */
export const COMPARISONS = ['before', 'lastYear', 'none'] as const;
export type Comparison = (typeof COMPARISONS)[number];

export const DISPLAY_SCALES = ['units', 'thousands', 'millions'] as const;
export type DisplayScale = (typeof DISPLAY_SCALES)[number];

/** The choices of every form. */
export const baseFields = {
  id: yup.string().min(1).max(40).required(),
  /** The measures; empty only for words. The first gives unit, band and zone. */
  measures: yup.array(measureSchema.required()).max(MAX_MEASURES).required(),
  /** null = automatic, from the choices. */
  title: yup.string().trim().max(200).nullable().default(null),
  /** Text under the readout; null = automatic, from subset and hours. */
  footnote: yup.string().trim().max(500).nullable().default(null),
  /** The indicator it shows, which governs measure, band and format; null = its own choices. */
  indicatorId: idText().nullable().default(null),
  /** null = the board's window. */
  window: orNull(windowSchema),
  /** One value per asset, plant, kind or attribute; null = not grouped. */
  groupBy: orNull(groupBySchema),
  /** Drawn once for each of these groups, in small copies on one scale; null = once. Only if it is grouped. */
  multiplesBy: orNull(groupBySchema),
  /** Groupings that a step down goes through, in order; after the last come the parts of an asset. */
  steps: yup.array(groupBySchema).max(5).default([]),
  /** Whether assets without the grouping attribute form a group of their own. */
  keepBlanks: yup.boolean().default(true),
  /** Assets within the board's scope; null = all of it. */
  scope: scopeSchema.nullable().default(null),
  /** Hours within the board's hours; null = all of them. */
  hours: hoursSchema.nullable().default(null),
  band: orNull(bandSchema),
  compare: yup.string().oneOf(COMPARISONS).default('before'),
  /** null = automatic, from the size of the numbers. */
  decimals: yup.number().integer().min(0).max(9).nullable().default(null),
  display: yup.string().oneOf(DISPLAY_SCALES).default('units'),
  /** Columns of 12 and rows of 76 px on a wide sheet; null = as usual for the form. */
  size: yup
    .object({
      columns: yup.number().integer().min(2).max(12).required(),
      rows: yup.number().integer().min(1).max(12).required(),
    })
    .noUnknown()
    .nullable()
    .default(null),
  /** Link behind its numbers: a page ("/boards/3") or an address; null = none. */
  link: yup.string().trim().max(500).nullable().default(null),
};

type Base = TypeOf<ReturnType<typeof yup.object<yup.AnyObject, typeof baseFields>>>;

export interface BaseReadout extends Base {
  /**
   * The reference of its indicator where that is not an earlier window, in the unit of the measure. Set only
   * when an indicator is applied for display; not part of the document.
   */
  readonly reference?: { readonly kind: 'fixed' | 'baseline' | 'measure'; readonly value: number | null };
}

/** Most readings in one request: more than a board has readouts. */
export const MAX_REQUESTS = 80;
