import { BeaconError } from '../errors';
import {
  BOARD_FORMAT_VERSION,
  emptyReadout,
  withMatchingChoices,
  type BoardDocument,
  type Readout,
} from './board';
import { WHOLE_SCOPE } from '../domain/query';
import { type Measure } from '../domain/measure';
import { isForm, READOUT_FORMS } from '../readouts/forms';

/**
 * Upgrades a board document of any version; nothing shown is lost.
 *
 * Version 1 had one measure a readout and neither scope nor hours. In version 2 every readout had the choices
 * of all forms; choices its form does not have are dropped.
 *
 * @throws {BeaconError} BAD_INPUT if it is no board document or of a later version.
 */
export function upgradeBoard(document: unknown): BoardDocument {
  const version = (document as { version?: unknown } | null)?.version;
  if (version === BOARD_FORMAT_VERSION) return completed(document as BoardDocument);
  if (version === 2) return fromSecond(document as SecondDocument);
  if (version === 1) return fromSecond(fromFirst(document as FirstDocument));
  const words =
    typeof version === 'number'
      ? `Version ${version} of a board cannot be read here; the newest known is ${BOARD_FORMAT_VERSION}.`
      : 'This is not a board: its version is missing.';
  throw new BeaconError('BAD_INPUT', words, 'document.version');
}

interface AnyReadout {
  readonly id: string;
  readonly form: string;
}

/** An empty readout. An unknown form is refused later, when the document is checked. */
const usual = ({ id, form }: AnyReadout): Readout => emptyReadout(id, isForm(form) ? form : READOUT_FORMS[0]);

/** Fields added later have their default in older documents. */
function completed(document: BoardDocument): BoardDocument {
  return {
    ...document,
    readouts: document.readouts.map((each) => {
      const readout = perAttributeByMeasure(each);
      return { ...readout, ...withMatchingChoices(usual(readout), readout) };
    }),
  };
}

/**
 * Only a trend could once be shown per an attribute, as a whole; now each measure can. Its band was in another unit and was
 * not drawn.
 */
function perAttributeByMeasure(readout: Readout): Readout {
  const { normalise } = readout as {
    readonly normalise?: { readonly by: string; readonly name?: string } | null;
  };
  if (normalise?.by !== 'attribute') return readout;
  return withMatchingChoices(readout, {
    normalise: null,
    band: null,
    secondBand: null,
    scale: { ends: null },
    measures: readout.measures.map((measure) =>
      measure.per === null ? { ...measure, perAttribute: normalise.name } : measure,
    ),
  });
}

interface SecondDocument extends Omit<BoardDocument, 'version' | 'readouts'> {
  readonly version: 2;
  readonly readouts: readonly AnyReadout[];
}

/** Every choice of any form; unknown members are refused later, when the document is checked. */
const CHOICES = new Set(READOUT_FORMS.flatMap((form) => Object.keys(emptyReadout('', form))));

/** Each readout keeps only the choices of its own form. */
function fromSecond(document: SecondDocument): BoardDocument {
  return {
    ...document,
    version: BOARD_FORMAT_VERSION,
    readouts: document.readouts.map((readout) => {
      if (!isForm(readout.form)) return readout as Readout;
      const unknown = Object.entries(readout).filter(([name]) => !CHOICES.has(name));
      return { ...Object.fromEntries(unknown), ...withMatchingChoices(usual(readout), readout) };
    }),
  };
}

interface FirstDocument {
  readonly window: BoardDocument['window'];
  readonly readouts: readonly (AnyReadout & { readonly measure: Measure })[];
}

function fromFirst({ window, readouts }: FirstDocument): SecondDocument {
  return {
    version: 2,
    window,
    scope: WHOLE_SCOPE,
    hours: null,
    readouts: readouts.map(({ measure, ...rest }) => ({ ...rest, measures: [measure] })),
  };
}
