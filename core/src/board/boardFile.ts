import { BeaconError } from '../errors';
import type { Metric } from '../api/metrics';
import { checkedPart, parseFile } from '../files/jsonFile';
import {
  metricsInFile,
  nameMetrics,
  placesInFile,
  type FileMetric,
  type FoundHere,
  type NamedPlaces,
} from '../files/namedThings';
import { boardDocumentSchema, boardTitleSchema } from './board';
import type { BoardDocument, Readout } from './board';
import { upgradeBoard } from './upgradeBoard';

/** First member of a board file, which identifies it. */
export const BOARD_FILE_KIND = 'vivid-beacon-board';

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
  const assets = [
    ...[scope, ...readouts.map((each) => each.scope)].flatMap((each) => each?.assetIds ?? []),
    ...readouts.flatMap(({ groupBy, multiplesBy = null }) =>
      [groupBy, multiplesBy].flatMap((by) => (by?.kind === 'part' ? (by.assetId ?? []) : [])),
    ),
  ];
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
  const named = nameMetrics(metricsOfBoard(document), metrics);
  const file: BoardFile = { kind: BOARD_FILE_KIND, title, document, metrics: named, ...places };
  return `${JSON.stringify(file, null, 2)}\n`;
}

/**
 * Reads the text of a board file.
 *
 * @throws {BeaconError} BAD_INPUT with the line of broken JSON, or the place of what is wrong.
 */
export function readBoardFile(text: string): BoardFile {
  const file = parseFile<BoardFile>(text, BOARD_FILE_KIND, 'a board file');
  const title = checkedPart(boardTitleSchema, file.title, 'title');
  const document = checkedPart(boardDocumentSchema.required(), upgradeBoard(file.document), 'document');
  const metrics = checkedPart(metricsInFile, file.metrics, 'metrics');
  const places = checkedPart(placesInFile, file, 'file');
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

/** A board as it can be shown here, and in words what was dropped or frozen on the way in. */
export interface TakenBoard {
  readonly document: BoardDocument;
  /** Readouts that are left out. */
  readonly left: number;
  readonly told: readonly string[];
}

/**
 * The document of a file with what is here. Readouts with a metric that is not here are left out; a scope loses assets that
 * are not, and the parts of such an asset become single assets; a readout of an indicator that is not here keeps its settings, but follows it no longer; a link to a board that is
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
  const groupOf = (groupBy: Readout['groupBy'], whose: string): Readout['groupBy'] => {
    if (groupBy?.kind !== 'part' || groupBy.assetId === null) return groupBy;
    const assetId = found.assets.get(groupBy.assetId);
    if (assetId !== undefined) return { kind: 'part', assetId };
    told.push(`${whose} is grouped by asset: the asset whose parts it showed is not here.`);
    return { kind: 'asset' };
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
        groupBy: groupOf(readout.groupBy, called),
        multiplesBy: groupOf(readout.multiplesBy, called),
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
