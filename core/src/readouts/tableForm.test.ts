import fc from 'fast-check';
import type { QueryAnswer } from '../domain/query';
import { groupedAnswer, groupedInputs, type GivenGroup } from '../testing/groupedReadout';
import { textWidth } from '../drawing/textWidth';
import { isProblem, type ReadoutInputs } from './readoutData';
import { TEXT } from './scene/words';
import { LEAST_WIDTH, NAMES_COLUMN, withWidth, type TableChoices } from './tableChoices';
import type { TableData, TableRow } from './tableData';
import { tableForm } from './tableForm';
import { shownRows, tableLayout } from './tableLayout';
import { tableParts } from './tableScene';
import { computedMaking, tableRows, tableWords } from './tableWords';

type Inputs = ReadoutInputs<TableChoices>;
const LOWER = { direction: 'lower', caution: 30, breach: 60, target: 20 } as const;

/** Groups inside groups: the path of each stands with it. */
const inside = (groups: readonly (GivenGroup & { readonly path: readonly string[] })[]): QueryAnswer => {
  const answer = groupedAnswer(groups, ['kWh', 'kg']);
  return { ...answer, groups: answer.groups.map((group, i) => ({ ...group, path: groups[i].path })) };
};

const PLANTS = groupedAnswer(
  [
    { name: 'Quayside', values: [50, 100], previous: [40, null] },
    { name: 'Foundry Lane', values: [90, 60] },
  ],
  ['kWh', 'kg'],
);
const MACHINES = inside([
  { path: ['Quayside'], name: 'Quayside / Dryer 1', values: [20, 70] },
  { path: ['Quayside'], name: 'Quayside / Dryer 2', values: [30, 30] },
  { path: ['Foundry Lane'], name: 'Foundry Lane / Dryer 1', values: [90, 0] },
]);
const whole = (value: number | null, unit: string): QueryAnswer =>
  groupedAnswer([{ name: 'All', values: [value] }], [unit]);

function made(choices: object = {}): TableData {
  const inputs: Inputs = groupedInputs(
    'table',
    { groupBy: { kind: 'plant' }, steps: [{ kind: 'asset' }], band: LOWER, ...choices },
    ['2'],
  );
  const data = tableForm.data(inputs, [PLANTS, MACHINES, whole(140, 'kWh'), whole(160, 'kg')]);
  if (isProblem(data)) throw new Error(data.problem.title);
  return data;
}
const outline = (rows: readonly TableRow[]): unknown[] =>
  rows.map(({ name, cells, parts }) => [name, cells[0].value, ...(parts.length > 0 ? [outline(parts)] : [])]);

describe('a table', () => {
  it('asks once for each depth, each group inside those around it, and once a measure for the total', () => {
    const inputs: Inputs = groupedInputs(
      'table',
      { groupBy: { kind: 'plant' }, steps: [{ kind: 'asset' }] },
      ['2'],
    );
    const asks = tableForm.requests(inputs)!.map(({ ask, isExtra }) => ({ ...ask, isExtra }));
    expect(asks).toMatchObject([
      { groupBy: { kind: 'plant' }, within: [] },
      { groupBy: { kind: 'asset' }, within: [{ kind: 'plant' }] },
      { groupBy: { kind: 'all' }, isExtra: true },
      { groupBy: { kind: 'all' }, isExtra: true },
    ]);
    expect(asks[2]).toHaveProperty('measures.length', 1);
  });

  it('puts parts into their groups, and says nothing of the plant twice', () => {
    expect(outline(made().rows)).toEqual([
      ['Foundry Lane', 90, [['Dryer 1', 90]]],
      [
        'Quayside',
        50,
        [
          ['Dryer 1', 20],
          ['Dryer 2', 30],
        ],
      ],
    ]);
    expect(made().total.map(({ value }) => value)).toEqual([140, 160]);
  });

  it('sorts every depth by one column after another, missing values last either way', () => {
    const byName = made({ sort: [{ column: -1, descending: true }] });
    expect(byName.rows.map(({ name }) => name)).toEqual(['Quayside', 'Foundry Lane']);
    const bySize = made({ sort: [{ column: 0, descending: true }] });
    expect(outline(bySize.rows)[1]).toEqual([
      'Quayside',
      50,
      [
        ['Dryer 2', 30],
        ['Dryer 1', 20],
      ],
    ]);
    const column = fc.array(fc.option(fc.integer({ min: 0, max: 3 }), { nil: null }), {
      minLength: 3,
      maxLength: 3,
    });
    fc.assert(
      fc.property(fc.array(column, { maxLength: 12 }), fc.boolean(), (values, descending) => {
        fc.pre(values.length > 0);
        const inputs: Inputs = groupedInputs(
          'table',
          { sort: [0, 1, 2].map((at) => ({ column: at, descending })) },
          ['2', '3'],
        );
        const answer = groupedAnswer(
          values.map((each, i) => ({ name: `Row ${i}`, values: each })),
          ['kWh', 'kg', '°C'],
        );
        const data = tableForm.data(inputs, [answer]);
        if (isProblem(data)) throw new Error(data.problem.title);
        const none = descending ? -1 : 99;
        const keys = data.rows.map(({ cells }) => cells.map(({ value }) => value ?? none));
        for (let i = 1; i < keys.length; i++) {
          const at = [0, 1, 2].find((k) => keys[i - 1][k] !== keys[i][k]);
          if (at !== undefined) expect(keys[i - 1][at] > keys[i][at]).toBe(descending);
        }
      }),
    );
  });

  it('keeps only rows on a level, with the groups around them, and says how many are hidden', () => {
    const breach = made({ only: 'breach' });
    expect(outline(breach.rows)).toEqual([['Foundry Lane', 90, [['Dryer 1', 90]]]]);
    expect(breach.hidden).toBe(3);
    expect(tableWords(breach)).toContain('3 rows without such a level are hidden');
    expect(outline(made({ only: 'beyond' }).rows)).toHaveLength(2);
  });

  it('has shares of the whole, ranks among the parts of one group, changes and distances beside a measure', () => {
    const beside = (['share', 'rank', 'change', 'distance'] as const).map((show) => ({ measure: 0, show }));
    const { rows, heads, total } = made({ beside });
    expect(heads.map(({ name, unit }) => `${name} ${unit}`.trim())).toEqual([
      'Gas used kWh',
      'Gas used, share %',
      'Gas used, rank',
      'Gas used, change kWh',
      'Gas used, from target kWh',
      'Dried weight kg',
    ]);
    const quayside = rows.find(({ name }) => name === 'Quayside')!;
    expect(quayside.cells.map(({ value }) => value)).toEqual([50, expect.closeTo(35.714, 3), 2, 10, 30, 100]);
    expect(quayside.parts.map(({ cells }) => cells[2].value)).toEqual([2, 1]);
    expect(total[1].value).toBe(100);
  });

  it('has the last days beside the window, of every row and of the total', () => {
    const choices = { groupBy: { kind: 'plant' }, beside: [{ measure: 0, show: 'recent' }], recentDays: 3 };
    const inputs: Inputs = groupedInputs('table', choices as never, ['2']);
    const asks = tableForm.requests(inputs)!;
    expect(asks.slice(3).map(({ ask }) => 'window' in ask && ask.window)).toEqual(
      Array(3).fill({ kind: 'rolling', count: 3, unit: 'day' }),
    );
    const recent = groupedAnswer([{ name: 'Quayside', values: [7, 1] }], ['kWh', 'kg']);
    const data = tableForm.data(inputs, [
      PLANTS,
      whole(140, 'kWh'),
      whole(160, 'kg'),
      recent,
      whole(7, 'kWh'),
      whole(1, 'kg'),
    ]);
    if (isProblem(data)) throw new Error(data.problem.title);
    expect(data.heads[1].name).toBe('Gas used, last 3 days');
    expect(data.rows.map(({ name, cells }) => [name, cells[1].value])).toEqual([
      ['Foundry Lane', null],
      ['Quayside', 7],
    ]);
    expect(data.total[1].value).toBe(7);
  });

  it('works columns out of others: of the total over the totals; a division by zero has no value', () => {
    const { rows, total, heads } = made({
      computed: [{ name: 'Gas per kg', expression: 'a / b', unit: 'kWh/kg' }],
    });
    const at = heads.findIndex(({ kind }) => kind === 'computed');
    const [foundry] = rows;
    expect([foundry.cells[at].value, foundry.parts[0].cells[at].value]).toEqual([1.5, null]);
    // Sums before ratios: 140 / 160, not the mean of 0.5 and 1.5.
    expect(total[at].value).toBe(0.875);
    const wrong = made({
      computed: [
        { name: 'Odd', expression: 'a / z', unit: '' },
        { name: 'Broken', expression: 'a /', unit: '' },
        { name: 'Earlier', expression: '1 + lag(a, 1)', unit: '' },
      ],
    });
    // Rows are not steps of time.
    expect(tableWords(wrong)).toMatch(/Earlier cannot be worked out: lag compares with what is before/);
    expect(tableWords(wrong)).toMatch(
      /Odd cannot be worked out: z is no column.*Broken cannot be worked out/,
    );
  });

  it('keeps those without an attribute apart, at every depth', () => {
    const inputs: Inputs = groupedInputs('table', {
      groupBy: { kind: 'attribute', name: 'Maker' },
      steps: [{ kind: 'attribute', name: 'Type' }],
      beside: [{ measure: 0, show: 'rank' }],
    });
    const outer = groupedAnswer([
      { name: '', values: [5] },
      { name: 'Acme', values: [9] },
    ]);
    const inner = inside([
      { path: [''], name: '', values: [2] },
      { path: [''], name: 'Cage', values: [3] },
      { path: ['Acme'], name: 'Cage', values: [9] },
    ]);
    const data = tableForm.data(inputs, [outer, inner, whole(14, 'kWh')]);
    if (isProblem(data)) throw new Error(data.problem.title);
    expect(outline(data.rows)).toEqual([
      ['Acme', 9, [['Cage', 9]]],
      [
        'no Maker',
        5,
        [
          ['Cage', 3],
          ['no Type', 2],
        ],
      ],
    ]);
    expect(data.rows.map(({ cells }) => cells[1].value)).toEqual([1, 2]);
    expect(data.rows[1].parts.map(({ cells }) => cells[1].value)).toEqual([1, 2]);
  });

  it('says where a total cannot be put together', () => {
    const inputs: Inputs = groupedInputs('table', { groupBy: { kind: 'plant' } }, ['2']);
    const data = tableForm.data(inputs, [PLANTS, whole(140, 'kWh'), undefined]);
    if (isProblem(data)) throw new Error(data.problem.title);
    expect(data.total.map(({ value }) => value)).toEqual([140, null]);
    expect(tableWords(data)).toContain('cannot be put together');
  });

  it('opens and closes, draws only the rows it is given, and is as wide as its columns need', () => {
    const data = made();
    expect(shownRows(data.rows, () => false)).toHaveLength(2);
    const open = shownRows(data.rows, (key) => key === 'Quayside');
    expect(open.map(({ row, isOpen }) => [row.name, isOpen])).toEqual([
      ['Foundry Lane', false],
      ['Quayside', true],
      ['Dryer 1', false],
      ['Dryer 2', false],
    ]);
    for (const width of [300, 600, 1200]) {
      const { names, columns } = tableLayout(data, width, null);
      const parts = tableParts(data, { rows: open.slice(1, 3), names, columns, focus: null, rowHeight: 36 });
      expect([parts.names.height, parts.cells.height]).toEqual([72, 72]);
      expect(parts.headCells.width).toBe(parts.cells.width);
      if (width >= 600) expect(names + parts.cells.width).toBeCloseTo(width, 3);
    }
    expect(tableLayout(data, 300, 1).columns.map(({ at }) => at)).toEqual([1]);
  });

  it('keeps widths that were set by hand, and gives what is left over to the other columns', () => {
    const [gas] = made().heads;
    const widths = withWidth(withWidth([], gas.key, 200.4), NAMES_COLUMN, 150);
    const { names, columns } = tableLayout(made({ widths }), 900, null);
    expect([names, columns[0].width]).toEqual([150, 200]);
    expect(columns[1].width).toBeCloseTo(900 - 150 - 200, 6);
    expect(withWidth(widths, gas.key, 5)).toContainEqual({ column: gas.key, width: LEAST_WIDTH });
    expect(withWidth(widths, gas.key, null)).toEqual([{ column: NAMES_COLUMN, width: 150 }]);
  });

  it('turns its heads, so that columns need no more room than their numbers', () => {
    const drawn = (heads: 'level' | 'turned') => {
      const data = made({ heads, cells: 'numbers', band: null });
      const { names, columns } = tableLayout(data, 100, null);
      const rows = shownRows(data.rows, () => true);
      return { columns, ...tableParts(data, { rows, names, columns, focus: null, rowHeight: 36 }) };
    };
    const [level, turned] = [drawn('level'), drawn('turned')];
    expect(turned.columns[1].width).toBeLessThan(level.columns[1].width);
    const heads = turned.headCells.marks.filter(({ key }) => key.endsWith(' turned'));
    expect(heads.map((mark) => mark.kind === 'group' && mark.turned?.degrees)).toEqual([-90, -90]);
    // The longest name, read upwards, fits under the top.
    const longest = textWidth('Dried weight', TEXT.caption.face, TEXT.caption.size);
    expect(turned.headCells.height).toBeGreaterThan(longest);
    expect(turned.headNames.height).toBe(turned.headCells.height);
    expect(turned.headCells.hits).toHaveLength(2);
  });

  it('divides the bar of a group by its parts, whose lengths add up to it where they are all there is', () => {
    const data = made({ cells: 'parts', band: null });
    const { names, columns } = tableLayout(data, 900, null);
    const rows = shownRows(data.rows, () => false);
    const { cells } = tableParts(data, { rows, names, columns, focus: null, rowHeight: 36 });
    const row = cells.marks.find(({ key }) => key === data.rows.find(({ name }) => name === 'Quayside')!.key);
    const boxes = JSON.stringify(row).match(/"key":"(part \d|whole)","x":[\d.]+,"y":-?\d+,"width":[\d.]+/g)!;
    const widthOf = (key: string): number =>
      Number(boxes.find((box) => box.includes(`"${key}"`))!.split('"width":')[1]);
    // A pixel between two parts.
    expect(widthOf('part 0') + widthOf('part 1') + 2).toBeCloseTo(widthOf('whole'), 6);
    expect(widthOf('part 0')).toBeGreaterThan(widthOf('part 1'));
    // Means are not divided.
    expect(JSON.stringify(cells.marks)).not.toContain('NaN');
  });

  it('says how a computed cell was worked out, of a row and of the total', () => {
    const data = made({ computed: [{ name: 'Gas per kg', expression: 'a / b', unit: 'kWh/kg' }] });
    const at = data.heads.findIndex(({ kind }) => kind === 'computed');
    const [quayside] = data.rows.filter(({ name }) => name === 'Quayside');
    const told = (cells: TableRow['cells']): unknown => {
      const making = computedMaking(data, cells, at)!;
      return [making.expression, making.terms.map(({ letter, cell }) => [letter, cell.value])];
    };
    expect(told(quayside.cells)).toEqual([
      'a / b',
      [
        ['a', 50],
        ['b', 100],
      ],
    ]);
    expect(told(data.total)).toEqual([
      'a / b',
      [
        ['a', 140],
        ['b', 160],
      ],
    ]);
    expect(computedMaking(data, quayside.cells, 0)).toBeNull();
    const { names, columns } = tableLayout(data, 900, null);
    const { cells } = tableParts(data, {
      rows: shownRows(data.rows, () => false),
      names,
      columns,
      focus: null,
      rowHeight: 36,
    });
    expect(cells.hits.map(({ spoken }) => spoken)).toContain(
      'Quayside, Gas per kg 0.50\u2009kWh/kg. How it was worked out',
    );
  });

  it('marks the focused group where groups are columns', () => {
    const drawn = (focus: string | null): string => {
      const data = made({ across: 'groups' });
      const { names, columns } = tableLayout(data, 900, null);
      return JSON.stringify(
        tableParts(data, { rows: [], names, columns, focus, rowHeight: 36 }).headCells.marks,
      );
    };
    expect(drawn('Quayside')).toContain('Quayside chosen');
    expect(drawn(null)).not.toContain('chosen');
  });

  it('goes out with every row, the names around it and the total', () => {
    const { columns, rows } = tableRows(made());
    expect(columns.map(({ name }) => name)).toEqual([
      'Name',
      'Name, level 2',
      'Gas used',
      'Gas used, level',
      'Dried weight',
    ]);
    expect(rows).toContainEqual(['Quayside', 'Dryer 2', 30, 'Clear', 30]);
    expect(rows.at(-1)).toEqual(['Together', null, 140, 'Breach', 160]);
  });
});
