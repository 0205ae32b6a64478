import * as yup from 'yup';
import { BeaconError } from '../errors';
import type { Metric } from '../api/metrics';
import { boardDocumentSchema, boardTitleSchema } from './board';
import type { BoardDocument, Readout } from './board';
import { namedMetricFields } from '../schemas/lists';
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

/** A board as a file (docs/board-file.md). Ids are those of the document; `metrics` describes them. */
export interface BoardFile {
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

/** Writes a board as the text of its file. */
export function writeBoardFile(
  title: string,
  document: BoardDocument,
  metrics: readonly Pick<Metric, 'id' | 'key' | 'name' | 'assetName' | 'plantName' | 'unit'>[],
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
  const file: BoardFile = { kind: BOARD_FILE_KIND, title, document, metrics: named };
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
  const known = new Set(metrics.map(({ id }) => id));
  const missing = metricsOfBoard(document as unknown as BoardDocument).find((id) => !known.has(id));
  if (missing !== undefined) {
    throw new BeaconError(
      'BAD_INPUT',
      `The board names metric ${missing}, but "metrics" does not say what it is.`,
      'metrics',
    );
  }
  return { kind: BOARD_FILE_KIND, title, document: document as unknown as BoardDocument, metrics };
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

/**
 * The document with local metrics. Readouts with an unmatched metric are left out. Scopes name assets of the
 * other installation and are dropped; readouts of an indicator keep its settings but no longer follow it.
 */
export function mapMetrics(
  document: BoardDocument,
  to: ReadonlyMap<string, string | null>,
): { document: BoardDocument; left: number } {
  const readouts = document.readouts.flatMap((readout) => {
    const measures = readout.measures.map((measure) => ({
      ...measure,
      metricId: to.get(measure.metricId) ?? null,
      per: measure.per && { ...measure.per, metricId: to.get(measure.per.metricId) ?? null },
    }));
    const whole = measures.every(({ metricId, per }) => metricId !== null && per?.metricId !== null);
    const scope = readout.scope && { ...readout.scope, assetIds: null };
    return whole
      ? [{ ...readout, indicatorId: null, scope, measures: measures as typeof readout.measures }]
      : [];
  });
  return {
    document: { ...document, scope: { ...document.scope, assetIds: null }, readouts },
    left: document.readouts.length - readouts.length,
  };
}
