import { hasEndMark, readOpenMetrics, readPlainExposition } from '@vivid-beacon/core/src/intakeFiles';
import { rowsAtHand, type FileLike, type Source } from './source';
import { wholeText, type Encoding } from './textPieces';

/** OpenMetrics text is complete only with its end mark. */
const MAX_BYTES = 50_000_000;

/** Opens OpenMetrics or plain exposition text: one row a sample, with a column for each label. */
export async function openExposition(file: FileLike, encoding: Encoding): Promise<Source> {
  const text = await wholeText(file, encoding, MAX_BYTES, 'OpenMetrics text');
  const ended = hasEndMark(text);
  const { samples, refused, units } = ended ? readOpenMetrics(text) : readPlainExposition(text);
  const labels = [...new Set(samples.flatMap((sample) => sample.labels.map(([label]) => label)))];
  const timed = samples.some(({ t }) => t !== null);
  const headings = ['metric', 'value', 'unit', ...labels, ...(timed ? ['time'] : [])];
  const rows = samples.map((sample) => {
    const own = new Map(sample.labels);
    return [
      sample.name,
      Number.isFinite(sample.value) ? String(sample.value) : '',
      units.get(sample.name) ?? units.get(sample.name.replace(/_(total|sum|count|bucket)$/, '')) ?? '',
      ...labels.map((label) => own.get(label) ?? ''),
      ...(timed ? [sample.t === null ? '' : new Date(sample.t).toISOString()] : []),
    ];
  });
  const parts = Object.fromEntries([
    [0, 'name'],
    [1, 'value'],
    [2, 'unit'],
    ...labels.map((_, i) => [3 + i, 'name']),
    ...(timed ? [[3 + labels.length, 'time']] : []),
  ]) as Source['parts'];
  const explained = new Set([...samples, ...refused].map(({ line }) => line));
  // Lines that describe families, and empty ones.
  const lineCount = text.split('\n').length - (text.endsWith('\n') ? 1 : 0);
  const hand = rowsAtHand(
    rows,
    samples.map(({ line }) => line),
    lineCount - explained.size,
  );
  return {
    encoding: ended ? 'OpenMetrics text' : 'exposition text without end mark',
    counted: 'line',
    sheets: [],
    sheet: null,
    separator: null,
    headings,
    parts,
    ...hand,
    async *rows(refuse) {
      for (const { line, text: value, reason } of refused) refuse(line, value, reason);
      yield* hand.rows(refuse);
    },
  };
}
