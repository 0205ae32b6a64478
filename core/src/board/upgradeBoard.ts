import { BeaconError } from '../errors';
import { BOARD_FORMAT_VERSION, emptyReadout, PLAIN_SCALE, type BoardDocument } from './board';
import { WHOLE_SCOPE } from '../domain/query';
import { type Measure } from '../domain/measure';

/**
 * A board document of any version as one of this version; nothing it says is lost.
 *
 * Version 1 had one measure a readout and neither scope nor hours.
 *
 * @throws {BeaconError} BAD_INPUT for what is no board document, or one of a later version.
 */
export function upgradeBoard(document: unknown): BoardDocument {
  const version = (document as { version?: unknown } | null)?.version;
  if (version === BOARD_FORMAT_VERSION) return completed(document as BoardDocument);
  if (version === 1) return fromFirst(document as FirstDocument);
  const words =
    typeof version === 'number'
      ? `Version ${version} of a board cannot be read here; the newest known is ${BOARD_FORMAT_VERSION}.`
      : 'This is not a board: its version is missing.';
  throw new BeaconError('BAD_INPUT', words, 'document.version');
}

/** What came to version 2 later has its usual value in older documents. */
function completed(document: BoardDocument): BoardDocument {
  return {
    ...document,
    readouts: document.readouts.map((readout) => ({
      ...emptyReadout(readout.id, readout.form),
      ...readout,
      scale: { ...PLAIN_SCALE, ...readout.scale },
    })),
  };
}

interface FirstDocument {
  readonly window: BoardDocument['window'];
  readonly readouts: readonly ({
    readonly id: string;
    readonly form: 'gauge';
    readonly measure: Measure;
  } & object)[];
}

function fromFirst({ window, readouts }: FirstDocument): BoardDocument {
  return {
    version: BOARD_FORMAT_VERSION,
    window,
    scope: WHOLE_SCOPE,
    hours: null,
    readouts: readouts.map(({ measure, ...rest }) => ({
      ...emptyReadout(rest.id, rest.form),
      ...rest,
      measures: [measure],
    })),
  };
}
