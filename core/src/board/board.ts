import type { TargetBand } from '../bands/targetBand';
import type { GroupBy, Scope } from '../domain/query';
import type { Summary } from '../domain/metric';
import type { Bucket } from '../time/buckets';
import type { HoursFilter } from '../time/hours';
import type { WindowSpec } from '../time/window';

/** What is measured: one metric summarised, or one per another (sum over sum). */
export interface Measure {
  readonly metricId: string;
  readonly summary: Summary;
  readonly per: {
    readonly metricId: string;
    readonly summary: Summary;
    /** What the ratio is multiplied by; 100 for percent. */
    readonly factor: number;
    /** Unit of the ratio; null = upper unit / lower unit. */
    readonly unit: string | null;
  } | null;
}

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
export interface ScaleChoice {
  /** null = from data, band and target, at nice numbers. */
  readonly ends: readonly [number, number] | null;
  /** Do limits and target alone give the ends that are not given? Values beyond them stop there. */
  readonly fromTarget: boolean;
  readonly reversed: boolean;
  readonly logarithmic: boolean;
  /** Is an empty stretch of a trend's scale left out where values lie far apart? */
  readonly broken: boolean;
  readonly sectors: SectorPlace;
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

/** How the lines of a trend are put into proportion; see `normalised`. */
export type Normalise = { readonly by: 'first' } | { readonly by: 'attribute'; readonly name: string };

/** Lines of a trend laid over one another from the date in an attribute of each asset on. */
export interface Alignment {
  readonly attribute: string;
  readonly days: number;
}

/** Most measures that one readout shows. */
export const MOST_MEASURES = 20;

/** One element of a board. */
export interface Readout {
  /**
   * What its indicator is compared with where that is not an earlier window, in the unit of the measure. Only on a
   * readout that follows one as it is shown: it is not part of the document.
   */
  readonly reference?: { readonly kind: 'fixed' | 'baseline' | 'measure'; readonly value: number | null };
  readonly id: string;
  readonly form: ReadoutForm;
  /** null = made from the choices. */
  readonly title: string | null;
  /** What stands under the readout; null = made from subset and hours. */
  readonly footnote: string | null;
  /** The indicator it shows, which governs measure, band and format; null = its own choices. */
  readonly indicatorId: string | null;
  /** What is shown; none only in a note, else the first leads and gives unit, band and zone. */
  readonly measures: readonly Measure[];
  /** null = the board's window. */
  readonly window: WindowSpec | null;
  /** For a trend: summarised by local hour, day …; null = the samples themselves. */
  readonly bucket: Bucket | null;
  /** For a trend by period: each value added to those before it. */
  readonly cumulative: boolean;
  /** One value for each asset, plant, kind or attribute; null = the metrics as they are. */
  readonly groupBy: GroupBy | null;
  /** Are assets without the attribute of the grouping kept as a group of their own? */
  readonly keepBlanks: boolean;
  /** Only which assets, within the board's scope; null = all of it. */
  readonly scope: Scope | null;
  /** Only which hours, within the board's; null = all. */
  readonly hours: HoursFilter | null;
  readonly band: TargetBand | null;
  /** For a trend with lines of two units: the band of the second, in that unit. */
  readonly secondBand: TargetBand | null;
  readonly compare: Comparison;
  /** null = chosen from the size of the numbers. */
  readonly decimals: number | null;
  readonly display: DisplayScale;
  readonly mark: TrendMark;
  readonly scale: ScaleChoice;
  /** Does a trend write values at the points of its lines, as many as fit? */
  readonly pointLabels: boolean;
  /** For a trend: null = values as they are. */
  readonly normalise: Normalise | null;
  /** For a trend of single metrics: by days since a start event; null = by date. */
  readonly align: Alignment | null;
  /** Columns of 12 and rows of 76 px on a wide sheet; null = as usual for the form. */
  readonly size: { readonly columns: number; readonly rows: number } | null;
  /** Markdown of a note. */
  readonly text: string;
  /** Where its numbers also lead: a page of ours ("/boards/3") or an address; null = nowhere else. */
  readonly link: string | null;
}

export const BOARD_FORMAT_VERSION = 2;

/** What a board holds, as it is stored, sent and written to a file. */
export interface BoardDocument {
  readonly version: typeof BOARD_FORMAT_VERSION;
  readonly window: WindowSpec;
  readonly scope: Scope;
  readonly hours: HoursFilter | null;
  readonly readouts: readonly Readout[];
}

export interface Board {
  readonly id: string;
  readonly title: string;
  readonly document: BoardDocument;
  /** Goes up by one at every change; a save must name the one it started from. */
  readonly revision: number;
  readonly ownerName: string;
  readonly updatedAt: number;
}

export const WHOLE_SCOPE: Scope = { assetIds: null, attributes: [] };

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
