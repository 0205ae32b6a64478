import * as yup from 'yup';
import { BeaconError } from '../errors';
import type { Metric } from '../api/metrics';
import { boardDocumentSchema, boardTitleSchema } from './board';
import type { BoardDocument, Readout } from './board';
import { namedMetricFields } from '../schemas/lists';
import { nameKey } from '../text/sameName';
import { upgradeBoard } from './upgradeBoard';

/** First member of a board file, which identifies it. */
export const BOARD_FILE_KIND = 'vivid-beacon-board';

/** A metric named in a board file: its key, and words for a person who has to find a substitute. */
export interface FileMetric {
  readonly id: string;
  readonly key: string;
  readonly name: string;
  readonly asset: string;
  readonly unit: string;
}

/** An asset, a board or an indicator named in a board file, by its id there and by what it is found again with. */
export interface FilePlace {
  readonly id: string;
  /** Names from the plant down, or the title of a board. */
  readonly title: string;
}
export interface FileIndicator {
  readonly id: string;
  readonly name: string;
  /** Names of its asset from the plant down. */
  readonly place: string;
}

/** What a document names besides metrics. */
export interface NamedPlaces {
  readonly assets: readonly FilePlace[];
  readonly indicators: readonly FileIndicator[];
  readonly boards: readonly FilePlace[];
}
const NO_PLACES: NamedPlaces = { assets: [], indicators: [], boards: [] };

/** A board as a file (docs/board-file.md). Ids are those of the document; the lists describe them. */
export interface BoardFile extends NamedPlaces {
  readonly kind: typeof BOARD_FILE_KIND;
  readonly title: string;
  readonly document: BoardDocument;
  readonly metrics: readonly FileMetric[];
}

/** Every metric that a document names, once, in order. */
export function metricsOfBoard({ readouts }: { readonly readouts: readonly Readout[] }): string[] {
  const ids = readouts.flatMap(({ measures }) =>
    measures.flatMap(({ metricId, per }) => (per ? [metricId, per.metricId] : [metricId])),
  );
  return [...new Set(ids)];
}

/** The assets, indicators and boards that a document names, by id, each once. */
export function placesOfBoard(document: BoardDocument): {
  readonly [Kind in keyof NamedPlaces]: readonly string[];
} {
  const { scope, readouts } = document;
  const assets = [scope, ...readouts.map((each) => each.scope)].flatMap((each) => each?.assetIds ?? []);
  return {
    assets: [...new Set(assets)],
    indicators: [...new Set(readouts.flatMap(({ indicatorId }) => indicatorId ?? []))],
    boards: [...new Set(readouts.flatMap(({ link }) => boardOfLink(link) ?? []))],
  };
}

/** The board that a link leads to, by its id; null = it leads elsewhere. */
export const boardOfLink = (link: string | null): string | null =>
  /^\/boards\/(\d+)$/.exec(link?.trim() ?? '')?.[1] ?? null;

/** Writes a board as the text of its file. */
export function writeBoardFile(
  title: string,
  document: BoardDocument,
  metrics: readonly Pick<Metric, 'id' | 'key' | 'name' | 'assetName' | 'plantName' | 'unit'>[],
  places: NamedPlaces = NO_PLACES,
): string {
  const byId = new Map(metrics.map((metric) => [metric.id, metric]));
  const named = metricsOfBoard(document).flatMap((id): FileMetric[] => {
    const metric = byId.get(id);
    if (!metric) return [];
    const { key, name, assetName, plantName, unit } = metric;
    return [
      { id, key, name, asset: assetName === plantName ? plantName : `${plantName} / ${assetName}`, unit },
    ];
  });
  const file: BoardFile = { kind: BOARD_FILE_KIND, title, document, metrics: named, ...places };
  return `${JSON.stringify(file, null, 2)}\n`;
}

/**
 * Reads the text of a board file.
 *
 * @throws {BeaconError} BAD_INPUT with the line of broken JSON, or the place of what is wrong.
 */
export function readBoardFile(text: string): BoardFile {
  const file = parsed(text) as Partial<BoardFile> | null;
  if (typeof file !== 'object' || file === null || file.kind !== BOARD_FILE_KIND) {
    throw new BeaconError(
      'BAD_INPUT',
      `This is not a board file: its "kind" is not "${BOARD_FILE_KIND}".`,
      'kind',
    );
  }
  const title = checkedPart(boardTitleSchema, file.title, 'title');
  const document = checkedPart(boardDocumentSchema.required(), upgradeBoard(file.document), 'document');
  const metrics = checkedPart(metricsSchema, file.metrics, 'metrics');
  const places = checkedPart(placesSchema, file, 'file');
  const known = new Set(metrics.map(({ id }) => id));
  const missing = metricsOfBoard(document as unknown as BoardDocument).find((id) => !known.has(id));
  if (missing !== undefined) {
    throw new BeaconError(
      'BAD_INPUT',
      `The board names metric ${missing}, but "metrics" does not say what it is.`,
      'metrics',
    );
  }
  return { kind: BOARD_FILE_KIND, title, document: document as unknown as BoardDocument, metrics, ...places };
}

const metricsSchema = yup
  .array(
    yup
      .object({
        id: yup.string().max(20).required(),
        ...namedMetricFields(),
      })
      .required(),
  )
  .max(1200)
  .required();

const place = { id: yup.string().max(20).required() };
const titled = yup
  .array(yup.object({ ...place, title: yup.string().max(2000).required() }).required())
  .max(1200)
  .default([]);
/** Files of before this had only metrics. */
const placesSchema = yup
  .object({
    assets: titled,
    boards: titled,
    indicators: yup
      .array(
        yup
          .object({
            ...place,
            name: yup.string().max(200).required(),
            place: yup.string().max(2000).required(),
          })
          .required(),
      )
      .max(1200)
      .default([]),
  })
  .transform(({ assets, boards, indicators }: Partial<NamedPlaces>) => ({ assets, boards, indicators }));

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    const { message } = error as Error;
    const at = /position (\d+)/.exec(message);
    const line = at ? text.slice(0, Number(at[1])).split('\n').length : null;
    throw new BeaconError(
      'BAD_INPUT',
      `The file is not valid JSON${line ? `, line ${line}` : ''}: ${message}.`,
    );
  }
}

function checkedPart<T>(schema: yup.Schema<T>, value: unknown, place: string): T {
  try {
    return schema.validateSync(value);
  } catch (error) {
    const { path, errors } = error as yup.ValidationError;
    const where = path ? `${place}${path.startsWith('[') ? '' : '.'}${path}` : place;
    throw new BeaconError('BAD_INPUT', `${where}: ${errors[0]}.`, where);
  }
}

/**
 * Matches each metric of a file with one here, by key or by name, asset and unit; null where there is none.
 */
export function matchMetrics(
  file: BoardFile,
  metrics: readonly Pick<Metric, 'id' | 'key' | 'name' | 'assetName' | 'plantName' | 'unit'>[],
): Map<string, string | null> {
  const byKey = new Map(metrics.map((metric) => [metric.key, metric]));
  return new Map(
    file.metrics.map((wanted) => {
      const same = metrics.filter(
        ({ name, unit, assetName, plantName }) =>
          name === wanted.name &&
          unit === wanted.unit &&
          (wanted.asset === `${plantName} / ${assetName}` || wanted.asset === plantName),
      );
      return [wanted.id, byKey.get(wanted.key)?.id ?? (same.length === 1 ? same[0].id : null)];
    }),
  );
}

/** What is here by the ids of a file; absent or null = not here. */
export interface FoundHere {
  readonly metrics: ReadonlyMap<string, string | null>;
  readonly assets: ReadonlyMap<string, string>;
  readonly indicators: ReadonlyMap<string, string>;
  readonly boards: ReadonlyMap<string, string>;
}

/** Finds the assets, indicators and boards of a file again: by their names from the plant down, or by the title. */
export function matchPlaces(
  file: NamedPlaces,
  here: {
    readonly assets: readonly { readonly id: string; readonly title: string }[];
    readonly indicators: readonly { readonly id: string; readonly name: string; readonly place: string }[];
    readonly boards: readonly { readonly id: string; readonly title: string }[];
  },
): Pick<FoundHere, 'assets' | 'indicators' | 'boards'> {
  const titled = (wanted: readonly FilePlace[], found: readonly FilePlace[]): Map<string, string> =>
    new Map(
      wanted.flatMap(({ id, title }) => {
        const same = found.filter((each) => sameText(each.title, title));
        // On the same server it is the one of this id; two boards may bear one title.
        const one = same.find((each) => each.id === id) ?? (same.length === 1 ? same[0] : undefined);
        return one ? [[id, one.id] as const] : [];
      }),
    );
  return {
    assets: titled(file.assets, here.assets),
    boards: titled(file.boards, here.boards),
    indicators: new Map(
      file.indicators.flatMap(({ id, name, place: at }) => {
        const one = here.indicators.find((each) => sameText(each.name, name) && sameText(each.place, at));
        return one ? [[id, one.id] as const] : [];
      }),
    ),
  };
}

const sameText = (a: string, b: string): boolean => nameKey(a) === nameKey(b);

/** A board as it can be shown here, and in words what was dropped or frozen on the way in. */
export interface TakenBoard {
  readonly document: BoardDocument;
  /** Readouts that are left out. */
  readonly left: number;
  readonly told: readonly string[];
}

/**
 * The document of a file with what is here. Readouts with a metric that is not here are left out; a scope loses assets that
 * are not; a readout of an indicator that is not here keeps its settings, but follows it no longer; a link to a board that is
 * not here goes. Each is told.
 */
export function takeBoard(file: BoardFile, found: FoundHere): TakenBoard {
  const { document } = file;
  const told: string[] = [];
  const scopeOf = <S extends { readonly assetIds: readonly string[] | null }>(scope: S, whose: string): S => {
    if (scope.assetIds === null) return scope;
    const kept = scope.assetIds.flatMap((id) => found.assets.get(id) ?? []);
    const gone = scope.assetIds.filter((id) => !found.assets.has(id));
    if (gone.length > 0) {
      const names = gone.map(
        (id) => file.assets.find((each) => each.id === id)?.title ?? 'an asset without a name',
      );
      const rest = kept.length === 0 ? ', and is no longer narrowed to assets' : '';
      told.push(`${whose} no longer names ${names.join(', ')}${rest}: not here.`);
    }
    return { ...scope, assetIds: kept.length === 0 ? null : kept };
  };
  const scope = scopeOf(document.scope, 'The scope of the board');
  const readouts = document.readouts.flatMap((readout, i) => {
    const called = `"${readout.title ?? `Readout ${i + 1}`}"`;
    const measures = readout.measures.map((measure) => ({
      ...measure,
      metricId: found.metrics.get(measure.metricId) ?? null,
      per: measure.per && { ...measure.per, metricId: found.metrics.get(measure.per.metricId) ?? null },
    }));
    if (!measures.every(({ metricId, per }) => metricId !== null && per?.metricId !== null)) {
      told.push(`${called} is left out: a metric of it is not here.`);
      return [];
    }
    const indicatorId = readout.indicatorId && (found.indicators.get(readout.indicatorId) ?? null);
    if (readout.indicatorId && indicatorId === null) {
      const indicator = file.indicators.find(({ id }) => id === readout.indicatorId);
      const name = indicator ? `${indicator.name}, ${indicator.place}` : 'its indicator';
      told.push(
        `${called} keeps what ${name} said when the file was written, and follows it no longer: not here.`,
      );
    }
    const board = boardOfLink(readout.link);
    const to = board && found.boards.get(board);
    if (board && !to) {
      const title = file.boards.find(({ id }) => id === board)?.title ?? 'another board';
      told.push(`${called} no longer leads to ${title}: not here.`);
    }
    return [
      {
        ...readout,
        indicatorId,
        scope: readout.scope && scopeOf(readout.scope, called),
        link: board ? (to ? `/boards/${to}` : null) : readout.link,
        measures: measures as typeof readout.measures,
      },
    ];
  });
  return {
    document: { ...document, scope, readouts },
    left: document.readouts.length - readouts.length,
    told,
  };
}
