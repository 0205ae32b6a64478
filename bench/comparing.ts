/**
 * Comparing forms with much data, without a browser: a table of 100,000 rows and 12 columns from its answer to the scenes of what
 * is seen, against sorting the same numbers and writing the same cells; opening, sorting and scrolling it; a scatter of 5,000
 * points, and finding the point under a tap. Run: node --import tsx bench/comparing.ts
 */
import { hitAt, NOTHING_ALONG } from '../core/src/pictures';
import { groupedAnswer, groupedInputs } from '../core/src/testing/groupedReadout';
import {
  isProblem,
  scatter,
  shownRows,
  sorted,
  tableForm,
  tableLayout,
  tableParts,
  type TableData,
} from '../core/src/boards';
import { formatNumber } from '../core/src/format/format';
import { compare, median, report, timed } from './lib/measure';

const ROWS = 100_000;
const COLUMNS = 12;
const SEEN = 40;

const value = (row: number, column: number): number => ((row * 7919 + column * 104_729) % 99_991) / 7;
const METRICS = ['1', '2', '3'];
const measures = Array.from({ length: COLUMNS }, (_, i) => METRICS[i % METRICS.length]);
const groups = Array.from({ length: ROWS }, (_, row) => ({
  name: `Plant ${row % 50} / Machine ${row}`,
  values: measures.map((_each, column) => value(row, column)),
}));
const units = measures.map((id) => ({ 1: 'kWh', 2: 'kg', 3: '°C' })[id]!);
const answer = groupedAnswer(groups, units);
const inputs = groupedInputs('table', { sort: [{ column: 0, descending: true }] }, measures.slice(1));
const total = measures.map((_, i) => groupedAnswer([{ name: 'All', values: [1] }], [units[i]]));

const made = (): TableData => tableForm.data(inputs, [answer, ...total]) as TableData;
const draw = (data: TableData, from: number): void => {
  const { names, columns } = tableLayout(data, 1200, null);
  const rows = shownRows(data.rows, () => false).slice(from, from + SEEN);
  tableParts(data, { rows, names, columns, focus: null, rowHeight: 36 });
};

/** The least there is to do: rows in order of their first number, and the texts of those that are seen. */
const bare = (): void => {
  const rows = groups.map(({ name, values }) => ({ name, values: values.map((each) => ({ value: each })) }));
  rows.sort((a, b) => b.values[0].value - a.values[0].value);
  const seen = rows
    .slice(0, SEEN)
    .map(({ name, values }) => [name, ...values.map((each) => formatNumber(each.value, 1))]);
  if (seen.length !== SEEN) throw new Error('rows are missing');
};

await compare(
  'table, 100,000 × 12: from the answer to what is seen, over sorting and writing alone',
  () => draw(made(), 0),
  bare,
  15,
  7,
);
const data = made();
const { names, columns } = tableLayout(data, 1200, null);
const rows = shownRows(data.rows, () => false);
const scrolled: number[] = [];
for (let i = 0; i < 40; i++) {
  const seen = rows.slice(i * 900, i * 900 + SEEN);
  scrolled.push(
    await timed(() => tableParts(data, { rows: seen, names, columns, focus: null, rowHeight: 36 })),
  );
}
report('table: a step of scrolling, ms', median(scrolled), 16);
const sorting: number[] = [];
for (let column = 0; column < 5; column++)
  sorting.push(await timed(() => sorted(data.rows, [{ column, descending: true }])));
report('table: sorting by another column, ms', median(sorting), 500);

const POINTS = 5000;
const points = groupedAnswer(
  groups.slice(0, POINTS).map(({ name, values }) => ({ name, values: values.slice(0, 2) })),
  units.slice(0, 2),
);
const scatterData = scatter.data(groupedInputs('scatter', {}, ['2']), [points]);
if (isProblem(scatterData)) throw new Error(scatterData.problem.title);
const frame = { width: 480, height: null, focus: null, along: NOTHING_ALONG };
const drawing: number[] = [];
for (let i = 0; i < 9; i++) drawing.push(await timed(() => scatter.scene(scatterData, frame)));
report('scatter of 5,000 points: its drawing as data, ms', median(drawing), 100);
const { hits } = scatter.scene(scatterData, frame);
const taps: number[] = [];
for (let i = 0; i < 200; i++) taps.push(await timed(() => hitAt(hits, (i * 37) % 480, (i * 53) % 320)));
report('scatter of 5,000 points: the point under a tap, ms', median(taps), 10);
