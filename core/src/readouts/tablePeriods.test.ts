import fc from 'fast-check';
import type { QueryAnswer } from '../domain/query';
import { groupedAnswer, groupedInputs, NOON } from '../testing/groupedReadout';
import { isProblem, type ReadoutInputs } from './readoutData';
import { makingQuery } from './readoutValues';
import type { TableChoices } from './tableChoices';
import type { TableData } from './tableData';
import { tableForm } from './tableForm';
import { shownRows, tableLayout } from './tableLayout';
import { TABLE_HITS } from './tableHeads';
import { tableParts } from './tableScene';
import { tableRows, tableWords } from './tableWords';

type Inputs = ReadoutInputs<TableChoices>;
const LOWER = { direction: 'lower', caution: 30, breach: 60, target: 20 } as const;

const by = (groups: Readonly<Record<string, readonly (number | null)[]>>, unit = 'kWh'): QueryAnswer =>
  groupedAnswer(
    Object.entries(groups).map(([name, given]) => ({ name, values: [given] })),
    [unit],
  );
const GROUPS = groupedAnswer([
  { name: 'Quayside', values: [50] },
  { name: 'Foundry Lane', values: [90] },
]);
const TOTAL = groupedAnswer([{ name: 'All', values: [140] }]);
const DAYS = by({ Quayside: [10, 40], 'Foundry Lane': [90, null] });
const TOTAL_DAYS = by({ All: [100, 40] });

const inputsOf = (choices: object, measure = '1'): Inputs => {
  const inputs: Inputs = groupedInputs('table', { groupBy: { kind: 'plant' }, ...choices });
  const measures = inputs.readout.measures.map((each) => ({
    ...each,
    metricId: measure,
    summary: measure === '3' ? ('mean' as const) : ('sum' as const),
  }));
  return { ...inputs, readout: { ...inputs.readout, measures } };
};

function made(choices: object, answers: readonly QueryAnswer[], measure = '1'): TableData {
  const data = tableForm.data(inputsOf(choices, measure), answers);
  if (isProblem(data)) throw new Error(data.problem.title);
  return data;
}

const ANSWERS = [GROUPS, TOTAL, DAYS, TOTAL_DAYS];
const numbers = (rows: TableData['rows']): unknown[] =>
  rows.map(({ name, cells, parts }) => [
    name,
    cells.map(({ value }) => value),
    ...(parts.length > 0 ? [numbers(parts)] : []),
  ]);

describe('periods in a table', () => {
  it('are asked for with the groups, and only when they are shown', () => {
    const asks = (choices: object) =>
      tableForm
        .requests(inputsOf(choices))!
        .map(({ ask, isExtra }) => [(ask as { bucket: string | null }).bucket, isExtra ?? false]);
    expect(asks({})).toEqual([
      [null, false],
      [null, true],
    ]);
    expect(asks({ periods: 'week' }).slice(2)).toEqual([
      ['week', true],
      ['week', true],
    ]);
    // Rows that are periods are waited for.
    expect(asks({ periods: 'week', periodsAs: 'rows' })[2]).toEqual(['week', false]);
    expect(asks({ beside: [{ measure: 0, show: 'trend' }] }).slice(2)).toHaveLength(2);
  });

  it('stand after the window as columns, of every row and of the total', () => {
    const { heads, rows, total } = made({ periods: 'day' }, ANSWERS);
    expect(heads.map(({ name, kind }) => [name, kind])).toEqual([
      ['Gas used', 'measure'],
      [expect.stringContaining('Nov'), 'period'],
      [expect.stringContaining('Nov'), 'period'],
    ]);
    expect(numbers(rows)).toEqual([
      ['Foundry Lane', [90, 90, null]],
      ['Quayside', [50, 10, 40]],
    ]);
    expect(total.map(({ value }) => value)).toEqual([140, 100, 40]);
  });

  it('stand inside each innermost row in order of time, however the groups are sorted', () => {
    const sort = [{ column: -1, descending: true }];
    const { rows } = made({ periods: 'day', periodsAs: 'rows' }, ANSWERS);
    expect(numbers(rows)).toEqual([
      [
        'Foundry Lane',
        [90],
        [
          [expect.any(String), [90]],
          [expect.any(String), [null]],
        ],
      ],
      [
        'Quayside',
        [50],
        [
          [expect.any(String), [10]],
          [expect.any(String), [40]],
        ],
      ],
    ]);
    const down = made({ periods: 'day', periodsAs: 'rows', sort }, ANSWERS).rows;
    expect(down[0].parts.map(({ cells }) => cells[0].value)).toEqual([40, 10]);
  });

  it('are judged by the band only where their length does not matter', () => {
    const day = made({ periods: 'day', band: LOWER }, ANSWERS);
    expect(day.rows[0].cells.map(({ level }) => level)).toEqual(['breach', 'clear', 'nodata']);
    expect(day.heads.map(({ band }) => band !== null)).toEqual([true, false, false]);
    const mean = made({ periods: 'day', band: LOWER }, ANSWERS, '3');
    expect(mean.rows[0].cells.map(({ level }) => level)).toEqual(['breach', 'breach', 'nodata']);
  });

  it('open how they were made over their own time', () => {
    const choices = { periods: 'day' };
    const { of } = made(choices, ANSWERS).rows[1].cells[2];
    const query = makingQuery(inputsOf(choices), of!);
    expect(query?.window).toEqual({
      kind: 'absolute',
      start: '2026-11-18T12:00:00',
      end: '2026-11-19T12:00:00',
    });
    // A value of the window keeps its window.
    const whole = made(choices, ANSWERS).rows[1].cells[0].of!;
    expect(makingQuery(inputsOf(choices), whole)?.window).toEqual(inputsOf(choices).window);
  });

  it('that reach beyond the window are told, and those ahead are left out', () => {
    const early = { ...DAYS, start: [NOON - 3 * 86_400_000, NOON - 86_400_000] };
    expect(tableWords(made({ periods: 'day' }, [GROUPS, TOTAL, early, TOTAL_DAYS]))).toContain(
      'Periods are whole',
    );
    const ahead = { ...DAYS, start: [NOON - 86_400_000, NOON + 1], end: [NOON, NOON + 2] };
    expect(made({ periods: 'day' }, [GROUPS, TOTAL, ahead, TOTAL_DAYS]).heads).toHaveLength(2);
  });

  it('are refused, with words, if they are more than can be columns', () => {
    const many = groupedAnswer([{ name: 'Quayside', values: [Array<number>(401).fill(1)] }]);
    const data = tableForm.data(inputsOf({ periods: 'hour' }), [GROUPS, TOTAL, many, TOTAL_DAYS]);
    expect(data).toHaveProperty('problem.title', 'Too many periods as columns');
  });

  it('say of a shift that runs that it is not over', () => {
    const running = { ...DAYS, end: [NOON - 1, NOON + 1], names: ['Early', 'Late'] };
    const { heads } = made({ periods: 'shift' }, [GROUPS, TOTAL, running, TOTAL_DAYS]);
    expect(heads.slice(1).map(({ name }) => /^(Early|Late), .*?( so far)?$/.exec(name)?.slice(1))).toEqual([
      ['Early', undefined],
      ['Late', ' so far'],
    ]);
  });

  it('are a small trend in a cell, on a scale of its own, with gaps, and columns of its file', () => {
    const beside = [{ measure: 0, show: 'trend' }];
    const data = made({ beside }, ANSWERS);
    expect(data.rows.map(({ cells }) => cells[1].course)).toEqual([
      [90, null],
      [10, 40],
    ]);
    const { names, columns } = tableLayout(data, 600, null);
    const rows = shownRows(data.rows, () => true);
    const { cells } = tableParts(data, { rows, names, columns, focus: null, rowHeight: 36 });
    const courses = JSON.stringify(cells.marks).match(/"key":"course","d":"[^"]+"/g)!;
    // A lone value is a dot, two are a line.
    expect(courses[0]).toContain('h0.1');
    expect(courses[1]).toMatch(/M[\d. ]+L/);
    expect(tableRows(data).columns).toHaveLength(4);
    expect(tableRows(data).rows[1].slice(1)).toEqual([50, 10, 40]);
  });

  it('end a small trend with the last whole period, so that the running one does not look like a fall', () => {
    const running = { ...DAYS, end: [NOON - 1, NOON + 1] };
    const data = made({ beside: [{ measure: 0, show: 'trend' }] }, [GROUPS, TOTAL, running, TOTAL_DAYS]);
    expect(data.rows.map(({ cells }) => cells[1].course)).toEqual([[90], [10]]);
    expect(tableRows(data).columns).toHaveLength(3);
  });

  it('put the values of each period into the same rows as one query for that period would', () => {
    const course = fc.array(fc.option(fc.integer({ min: 0, max: 99 }), { nil: null }), {
      minLength: 3,
      maxLength: 3,
    });
    fc.assert(
      fc.property(fc.array(course, { minLength: 1, maxLength: 6 }), (given) => {
        const names = given.map((_, i) => `Plant ${i}`);
        const window = groupedAnswer(names.map((name) => ({ name, values: [1] })));
        const periods = groupedAnswer(names.map((name, i) => ({ name, values: [given[i]] })));
        const data = made({ periods: 'day' }, [window, TOTAL, periods, by({ All: [1, 1, 1] })]);
        expect(data.rows.map(({ cells }) => cells.slice(1).map(({ value }) => value))).toEqual(given);
      }),
    );
  });
});

describe('a table with a column for each group', () => {
  const across = { across: 'groups', band: LOWER, beside: [{ measure: 0, show: 'rank' }] };

  it('has a row for each measure and what stands beside it, everything together last', () => {
    const data = made(across, [GROUPS, TOTAL]);
    expect(data.heads.map(({ name }) => name)).toEqual(['Foundry Lane', 'Quayside', 'Together']);
    expect(numbers(data.rows)).toEqual([
      ['Gas used, kWh', [90, 50, 140]],
      ['Gas used, rank', [1, 2, null]],
    ]);
    expect(data.rows[0].cells.map(({ level }) => level)).toEqual(['breach', 'caution', 'breach']);
    expect(data.total).toEqual([]);
  });

  it('sorts its columns by a row, focuses by a head, and goes out as it is seen', () => {
    const data = made({ ...across, sort: [{ column: 0, descending: false }] }, [GROUPS, TOTAL]);
    expect(data.heads[0].name).toBe('Quayside');
    const { names, columns } = tableLayout(data, 600, null);
    const rows = shownRows(data.rows, () => true);
    const parts = tableParts(data, { rows, names, columns, focus: null, rowHeight: 36 });
    expect(parts.names.hits.map(({ key }) => key)).toEqual([`${TABLE_HITS.sort}0`, `${TABLE_HITS.sort}1`]);
    expect(parts.headCells.hits.map(({ key }) => key)).toEqual([
      `${TABLE_HITS.row}Quayside`,
      `${TABLE_HITS.row}Foundry Lane`,
    ]);
    expect(JSON.stringify(parts.names.marks)).toContain('↑ Gas used');
    const out = tableRows(data);
    expect(out.columns.map(({ name }) => name)).toEqual(['Name', 'Quayside', 'Foundry Lane', 'Together']);
    expect(out.rows).toEqual([
      ['Gas used, kWh', 50, 90, 140],
      ['Gas used, level', 'Caution', 'Breach', 'Breach'],
      ['Gas used, rank', 2, 1, null],
    ]);
  });

  it('is drawn whole, at any width', () => {
    const data = made({ ...across, periods: 'day' }, ANSWERS);
    for (const width of [320, 700]) {
      const scene = tableForm.scene(data, {
        width,
        height: null,
        focus: null,
        along: { spans: [], remarks: [], alarms: [], flags: [] },
      });
      expect(scene.width).toBe(width);
      expect(JSON.stringify(scene.marks)).toContain('Foundry Lane');
    }
  });
});

describe('what the logs say in a table', () => {
  const HOUR = 3_600_000;
  const choices = { notes: ['stops', 'remarks'] };
  const note = (parts: object) => ({
    assetId: 'Quayside',
    span: 0,
    stoppedMs: 0,
    reasons: [],
    open: false,
    remarks: [],
    ...parts,
  });

  it('is asked for once the rows are known, of the window, and of every period that is a row', () => {
    const asks = tableForm.further(inputsOf(choices), [GROUPS, TOTAL]);
    expect(asks).toEqual([
      {
        kind: 'notes',
        isExtra: true,
        ask: {
          assetIds: ['Quayside', 'Foundry Lane'],
          window: inputsOf(choices).window,
          bucket: null,
          hours: null,
        },
      },
    ]);
    const byDay = { ...choices, periods: 'day', periodsAs: 'rows' };
    expect(tableForm.further(inputsOf(byDay), ANSWERS)[0].ask).toMatchObject({ bucket: 'day' });
    expect(tableForm.further(inputsOf({}), [GROUPS, TOTAL])).toEqual([]);
    const many = groupedAnswer(Array.from({ length: 5001 }, (_, i) => ({ name: `Asset ${i}`, values: [1] })));
    expect(tableForm.further(inputsOf(choices), [many, TOTAL])).toEqual([]);
    expect(tableWords(made(choices, [many, TOTAL]))).toContain('too many rows for what the logs say');
  });

  it('is hours with their reasons, and remarks; nothing in the log is no gap', () => {
    const said = {
      now: NOON,
      notes: [
        note({
          stoppedMs: 2.5 * HOUR,
          reasons: [
            { reason: 'Belt', ms: 2 * HOUR },
            { reason: '', ms: HOUR / 2 },
          ],
        }),
        note({
          assetId: 'Foundry Lane',
          open: true,
          stoppedMs: HOUR,
          reasons: [{ reason: 'Jam', ms: HOUR }],
          remarks: ['Loud', 'Hot'],
        }),
      ],
    };
    const data = made(choices, [GROUPS, TOTAL, said as never]);
    expect(
      data.rows.map(({ name, cells }) => [
        name,
        ...cells.slice(1).flatMap(({ value, text }) => [value, text]),
      ]),
    ).toEqual([
      ['Foundry Lane', 1, expect.stringMatching(/^stopped now; Jam 1\.0\sh$/), 2, 'Loud; Hot'],
      ['Quayside', 2.5, expect.stringMatching(/^Belt 2\.0\sh, no reason 0\.5\sh$/), 0, ''],
    ]);
    expect(tableRows(data).columns.map(({ name }) => name)).toEqual([
      'Name',
      'Gas used',
      'Stopped',
      'Stopped, in words',
      'Remarks',
      'Remarks, in words',
    ]);
    // While it is not there yet, nothing is said; not "no stop".
    expect(made(choices, [GROUPS, TOTAL]).rows[0].cells[1].value).toBeNull();
    const quiet = made(choices, [GROUPS, TOTAL, { now: NOON, notes: [] } as never]);
    expect(quiet.rows[0].cells[1]).toMatchObject({ value: 0, text: 'none in the log' });
  });

  it('stands with each day of each machine', () => {
    const byDay = { ...choices, periods: 'day', periodsAs: 'rows' };
    const said = {
      now: NOON,
      notes: [note({ span: 2, stoppedMs: HOUR, reasons: [{ reason: 'Jam', ms: HOUR }] })],
    };
    const data = made(byDay, [...ANSWERS, said as never]);
    const quayside = data.rows.find(({ name }) => name === 'Quayside')!;
    expect(quayside.parts.map(({ cells }) => cells[1].value)).toEqual([0, 1]);
  });
});

describe('bars in a table', () => {
  const drawn = (cells: 'bars' | 'numbers'): string => {
    const data = made({ cells }, [GROUPS, TOTAL]);
    const { names, columns } = tableLayout(data, 900, null);
    const rows = shownRows(data.rows, () => true);
    return JSON.stringify(tableParts(data, { rows, names, columns, focus: null, rowHeight: 36 }).cells.marks);
  };

  it('are drawn only if they are wanted, however much room there is', () => {
    expect(drawn('bars')).toContain('"key":"bar"');
    expect(drawn('numbers')).not.toContain('"key":"bar"');
  });
});

describe('averages of a day in a table', () => {
  it('are amounts by day with data, of the window and of the last days; a mean is its own', () => {
    const beside = (['daily', 'recentDaily'] as const).map((show) => ({ measure: 0, show }));
    const half = groupedAnswer([{ name: 'Quayside', values: [50], coverage: 0.5 }]);
    const recent = groupedAnswer([{ name: 'Quayside', values: [28] }]);
    const answers = [half, TOTAL, recent, groupedAnswer([{ name: 'All', values: [28] }])];
    // The window of the answer is one day, of which half has data; the last days are seven.
    expect(made({ beside }, answers).rows[0].cells.map(({ value }) => value)).toEqual([50, 100, 4]);
    expect(made({ beside }, answers, '3').rows[0].cells.map(({ value }) => value)).toEqual([50, 50, 28]);
  });
});
