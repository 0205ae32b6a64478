import { DAY_MS, readColumns } from '@vivid-beacon/core';
import type { Balance, FileTargets, LayoutCorrection, ToldLine } from '@vivid-beacon/core/src/intakeFiles';
import { lookAt, type Look } from '../lookAt';
import { readFile } from '../readFile';
import { firstBytes, isSheet } from '../sources/fileBytes';
import { openText } from '../sources/openFile';
import { openSheet } from '../sources/sheetSource';
import type { FileLike, Source } from '../sources/source';

/** Bytes as a file that was chosen. */
export function fileOf(name: string, content: string | Uint8Array): FileLike {
  const bytes = typeof content === 'string' ? new TextEncoder().encode(content) : Uint8Array.from(content);
  return {
    name,
    size: bytes.length,
    slice: (from, to) => ({ arrayBuffer: async () => bytes.slice(from, to).buffer as ArrayBuffer }),
  };
}

/** Opens a file of any kind, as the two workers do between them. */
export async function openAny(file: FileLike, correct: LayoutCorrection = {}): Promise<Source> {
  const bytes = await firstBytes(file);
  return isSheet(bytes) ? openSheet(file, null) : openText(file, correct.separator ?? null);
}

export interface TakenSeries {
  readonly label: string;
  /** Heading of its value column. */
  readonly heading: string;
  /** Values by time (ms). */
  readonly values: ReadonlyMap<number, number>;
}

/** What was taken from a file: values by series and time. */
export interface Taken {
  readonly look: Look;
  readonly series: readonly TakenSeries[];
  readonly balance: Balance | null;
  readonly told: readonly ToldLine[];
}

/** Long after every file of the corpus. */
export const CORPUS_NOW = Date.UTC(2030, 0, 1);

/**
 * Looks at a file and, unless something must be asked, takes every series of it: the same functions that the workers
 * run, with the server's side of the parts decoded here.
 */
export async function takeAll(file: FileLike, correct: LayoutCorrection = {}, zone = 'UTC'): Promise<Taken> {
  const latest = CORPUS_NOW + DAY_MS;
  const look = await lookAt(await openAny(file, correct), {
    correct,
    zone,
    latest,
    progress: () => undefined,
  });
  const values = look.feeds.map(() => new Map<number, number>());
  const told: ToldLine[] = [];
  if (look.recognised.questions.length > 0) return { look, series: [], balance: null, told };
  const targets: FileTargets = Object.fromEntries(
    look.feeds.map(({ key, index }) => [key, { metricId: String(index), earliest: null }]),
  );
  const { balance } = await readFile(
    await openAny(file, correct),
    { layout: look.recognised.layout, targets, zone, latest, inOrder: look.inOrder },
    async (bytes) => {
      const { head, columns } = readColumns<{ metricIds: string[]; told: ToldLine[] }>(bytes.buffer);
      told.push(...head.told);
      head.metricIds.forEach((id, i) => {
        columns.get(`t ${i}`)!.forEach((t, k) => values[Number(id)].set(t, columns.get(`v ${i}`)![k]));
      });
    },
    () => undefined,
  );
  const series = look.feeds.map(({ label, column, index }) => ({
    label,
    heading: look.recognised.layout.headings[column] ?? 'rows',
    values: values[index],
  }));
  return { look, series, balance, told };
}
