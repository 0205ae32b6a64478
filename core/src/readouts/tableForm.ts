import { placed, type HitRegion, type Mark, type Scene } from '../drawing/scene';
import { ONE_VALUE } from './oneValue';
import { isProblem } from './readoutData';
import type { ReadoutFormOf } from './readoutForm';
import { TEXT, wrapped, written } from './scene/words';
import { TABLE_DEFAULTS, TABLE_FIELDS, type TableChoices } from './tableChoices';
import { tableData, tablesAlike, type TableData } from './tableData';
import { ROW, shownRows, tableLayout } from './tableLayout';
import { tableRequests } from './tableLines';
import { lampLegend, tableParts, type TableParts } from './tableScene';
import { notesRequests } from './tableNotes';
import { asAcross } from './tableSwap';
import { tableRows, tableWords } from './tableWords';

/** Rows in a picture; all are in its file. */
const MOST_IN_PICTURE = 60;

/** Rows of groups inside groups with several measures, what stands beside them, and columns worked out of them. */
export const tableForm: ReadoutFormOf<TableChoices, TableData> = {
  ...ONE_VALUE,
  label: 'Table',
  groupedMeasures: 'all',
  splits: true,
  columns: { one: 6, many: 8 },
  fields: TABLE_FIELDS,
  defaults: TABLE_DEFAULTS,
  requests: tableRequests,
  further: notesRequests,
  data: (inputs, answers) => {
    const data = tableData(inputs, answers);
    return isProblem(data) ? data : asAcross(data);
  },
  alike: tablesAlike,
  scene: (data, { width, focus }) => {
    const rows = shownRows(data.rows, () => true).slice(0, MOST_IN_PICTURE);
    const { names, columns } = tableLayout(data, width, null);
    const fitting = columns.filter(
      (_, i) => names + columns.slice(0, i + 1).reduce((sum, each) => sum + each.width, 0) <= width + 1,
    );
    const shown = fitting.length > 0 ? fitting : columns.slice(0, 1);
    const parts = tableParts(data, { rows, names, columns: shown, focus, rowHeight: ROW.pointer });
    return joined(data, parts, names, width, columns.length - shown.length);
  },
  table: tableRows,
};

/** All parts in one picture. */
function joined(data: TableData, parts: TableParts, names: number, width: number, dropped: number): Scene {
  const marks: Mark[] = [];
  const hits: HitRegion[] = [];
  let y = 0;
  const put = (key: string, left: Scene, right: Scene): void => {
    for (const [scene, x] of [
      [left, 0],
      [right, names],
    ] as const) {
      const at = placed(scene, `${key} ${x}`, x, y);
      marks.push(...at.marks);
      hits.push(...at.hits);
    }
    y += left.height;
  };
  put('head', parts.headNames, parts.headCells);
  put('rows', parts.names, parts.cells);
  if (data.total.length > 0) put('total', parts.totalNames, parts.totalCells);
  const legend = placed(lampLegend(data, width), 'legend', 0, y + 6);
  marks.push(...legend.marks);
  y += 6 + lampLegend(data, width).height;
  const left = data.rows.length > 0 ? shownRows(data.rows, () => true).length - MOST_IN_PICTURE : 0;
  const words = [
    tableWords(data),
    left > 0 ? `${left} more rows are in its file.` : '',
    dropped > 0 ? `${dropped} more columns are in its file.` : '',
  ];
  const note = wrapped(words.filter(Boolean).join(' '), TEXT.caption, width);
  marks.push(written(note, { key: 'note', x: 0, y, style: TEXT.caption, ink: 'ink2' }));
  return {
    width,
    height: y + note.length * TEXT.caption.lineHeight,
    marks,
    hits,
    spoken: tableWords(data),
  };
}
