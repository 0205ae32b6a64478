import type { ISchema } from 'yup';
import type { Scene } from '../drawing/scene';
import type { AlongTime } from '../drawing/trend/trendPlot';
import type { AlongAsks } from './alongAsks';
import type { Problem, ReadData, ReadingAnswers, ReadingRequest, ReadoutInputs } from './readoutData';
import type { Slot } from './slots';
import type { Table } from './table';

/**
 * A form of readout: its choices, its requests, its data, its drawing and its table. Everything about a form
 * is in its file; the registry of forms has a line for it.
 */
export interface ReadoutFormOf<Choices extends object, Data extends ReadData> extends FormTraits {
  /** Schemas of its own choices. */
  readonly fields: { readonly [Name in keyof Choices]: ISchema<unknown> };
  /** Its own choices in a new readout. */
  readonly defaults: Choices;
  /** The slots of its sentence, in order. */
  readonly slots: readonly Slot[];
  /** Requests to the server; [] if there is nothing to ask, null while a metric is not loaded. */
  requests(inputs: ReadoutInputs<Choices>): readonly ReadingRequest[] | null;
  /**
   * Requests that follow from the answers to the first, such as the sum of all that was cut off; the drawing does not
   * wait for them. `data` gets their answers after the others.
   */
  further(inputs: ReadoutInputs<Choices>, answers: ReadingAnswers): readonly ReadingRequest[];
  /** Ids of assets whose attributes it needs, as far as known from the answers. */
  facts(
    inputs: Pick<ReadoutInputs<Choices>, 'readout' | 'metrics'>,
    answers: ReadingAnswers,
  ): readonly string[];
  /**
   * Turns the answers into its data, or says why nothing can be drawn. Only answers to extras may be missing.
   */
  data(inputs: ReadoutInputs<Choices>, answers: ReadingAnswers): Data | Problem;
  /**
   * The data of several copies side by side, brought to one scale, so that equal lengths are equal amounts; left out where
   * it draws no lengths.
   */
  alike?(all: readonly Data[]): readonly Data[];
  /** Further requests once the data is there: remarks, alarms and flags along its time. null = none. */
  along(data: Data): AlongAsks | null;
  /** The drawing at any size. */
  scene(data: Data, frame: DrawingFrame): Scene;
  /** The same numbers as rows. */
  table(data: Data): Table;
}

/** Size and circumstances of a drawing. */
export interface DrawingFrame {
  readonly width: number;
  /** px; null = the default of the form. Ignored by forms whose height follows from their width. */
  readonly height: number | null;
  /** The focused asset; null = none. */
  readonly focus: string | null;
  /** Remarks, alarms and flags along its time, if the form requests them. */
  readonly along: AlongTime;
}

/** Traits of a form: what it can show, its size and its defaults. */
export interface FormTraits {
  /** Its label in the editor: "Straight gauge". */
  readonly label: string;
  /** Whether it shows measures; none = words. */
  readonly measures: 'none' | 'some';
  /** Shows values over time instead of one value: it has periods and may have a window of its own. */
  readonly overTime: boolean;
  /** Which measures its groups show. */
  readonly groupedMeasures: 'first' | 'all';
  /** Groups a single measure by asset when chosen, because it needs several values. */
  readonly splits: boolean;
  /** What a new one is compared with. */
  readonly compare: 'before' | 'none';
  /** Width in columns of 12 on a wide sheet; `many` with several values. */
  readonly columns: { readonly one: number; readonly many: number };
  /** Takes half the width of a phone when it shows one value. */
  readonly halfOnPhone: boolean;
  /** Whether its preview is small, like the readout on the board. */
  readonly smallPreview: boolean;
}
