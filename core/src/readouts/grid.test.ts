import { setFormats, USUAL_FORMATS } from '../format/formats';
import { trendOfCell } from '../board/cellTrend';
import type { QueryAnswer } from '../domain/query';
import { groupedAnswer, groupedInputs, NOON, type GivenGroup } from '../testing/groupedReadout';
import { grid, gridScene } from './grid';
import type { GridChoices, GridData } from './gridData';
import { isProblem, type ReadoutInputs } from './readoutData';

type Inputs = ReadoutInputs<GridChoices>;
const BAND = { direction: 'lower', caution: 30, breach: 60, target: 20 } as const;

/** Two weeks of hours: the value of a cell is its number, of two hours that have passed. */
function week(part: Partial<QueryAnswer['cells'] & object> = {}, groups = 1, coverage = 1): QueryAnswer {
  const values = Array.from({ length: 168 }, (_, i) => (i === 0 ? null : i));
  const all: GivenGroup[] = Array.from({ length: groups }, (_, i) => ({
    name: `Dryer ${i + 1}`,
    values: [values],
    coverage,
  }));
  const cells = { columns: 24, hours: values.map(() => 2), working: values.map(() => 1), ...part };
  return groupedAnswer(all, ['kWh'], { cells });
}

function made(answer: QueryAnswer, parts: object = {}): GridData {
  const inputs: Inputs = groupedInputs('grid', parts);
  const data = grid.data(inputs, [answer]);
  if (isProblem(data)) throw new Error(data.problem.title);
  return data;
}
const cellsOf = ({ grids }: GridData) => grids.flatMap(({ rows }) => rows.flatMap(({ cells }) => cells));

describe('a heat grid', () => {
  afterEach(() => setFormats(USUAL_FORMATS));

  it('asks once for hours that come again', () => {
    const inputs: Inputs = groupedInputs('grid', { layout: 'groupHour' });
    expect(grid.requests(inputs)).toMatchObject([
      { kind: 'query', ask: { fold: 'hourOfDay', bucket: null } },
    ]);
  });

  it('holds the mean of an hour with data where sums would grow with the window', () => {
    const cells = cellsOf(made(week()));
    expect([cells[0].value, cells[10].value, cells[10].name]).toEqual([null, 5, 'Mon, 10']);
    // Half of the two hours has data, so what there is came in one hour.
    expect(cellsOf(made(week({}, 1, 0.5)))[10].value).toBe(10);
    const dates = made(week(), { layout: 'dateHour' });
    expect(cellsOf(dates)[10].value).toBe(10);
  });

  it('judges cells by the band, and says what is missing, too thin, or outside working hours', () => {
    const working = Array.from({ length: 168 }, (_, i) => (i < 24 ? 0 : 1));
    const data = made(week({ working }), { band: BAND });
    expect(cellsOf(data)[100].level).toBe('caution');
    expect(cellsOf(data)[130].level).toBe('breach');
    const { spoken } = gridScene(data, 600);
    expect(spoken).toMatch(/^Highest Dryer 1, Sun, 23 84\skWh, Breach; lowest Dryer 1, Mon, 01 1\skWh/);
    expect(spoken).toMatch(/47 in Breach/);
    expect(spoken).toMatch(/Small squares: outside working hours/);
    expect(spoken).toMatch(/no data/);
    expect(gridScene(made(week({}, 1, 0.5)), 600).spoken).toBe('No data in any cell.');
  });

  it('leaves out hours that have not come yet', () => {
    const hours = Array.from({ length: 168 }, (_, i) => (i < 48 ? 1 : 0));
    const data = made(week({ hours }));
    expect(gridScene(data, 600).hits).toHaveLength(48);
    expect(grid.table(data).rows).toHaveLength(48);
  });

  it('begins the week on the day of whoever looks, and has a grid a group on one scale', () => {
    setFormats({ ...USUAL_FORMATS, firstWeekday: 7 });
    const data = made(week({}, 2));
    expect(data.grids.map(({ name, rows }) => [name, rows[0].name, rows[1].name])).toEqual([
      ['Dryer 1', 'Sun', 'Mon'],
      ['Dryer 2', 'Sun', 'Mon'],
    ]);
    const keys = gridScene(data, 600).hits.map(({ key }) => key);
    expect(new Set(keys).size).toBe(336);
  });

  it('has a row for each group by hour of the day', () => {
    const groups = ['Dryer 1', 'Dryer 2'].map((name) => ({
      name,
      values: [Array.from({ length: 24 }, (_, i) => i)],
    }));
    const cells = { columns: 24, hours: Array<number>(24).fill(1), working: Array<number>(24).fill(1) };
    const data = made(groupedAnswer(groups, ['kWh'], { cells }), { layout: 'groupHour' });
    expect(data.grids[0].rows.map(({ name, cells: own }) => [name, own[6].name])).toEqual([
      ['Dryer 1', 'Dryer 1, 06'],
      ['Dryer 2', 'Dryer 2, 06'],
    ]);
  });

  it('opens a cell as the trend of its hours, of its group alone', () => {
    const noPath = () => undefined;
    const data = made(week({}, 2), { hours: { kind: 'months', months: [11] } });
    const [, cell] = data.grids[1].rows[2].cells;
    expect(trendOfCell(data, cell, noPath)).toMatchObject({
      form: 'trend',
      bucket: 'week',
      mark: 'columns',
      groupBy: { kind: 'all' },
      scope: { assetIds: ['Dryer 2'] },
      hours: {
        kind: 'all',
        of: [
          { kind: 'months', months: [11] },
          {
            kind: 'all',
            of: [
              { kind: 'weekdays', days: [3] },
              { kind: 'clock', from: '01:00', to: '02:00' },
            ],
          },
        ],
      },
    });
    const dates = made(week(), { layout: 'dateHour' });
    expect(trendOfCell(dates, cellsOf(dates)[5], noPath)).toMatchObject({
      bucket: null,
      window: { kind: 'absolute' },
    });
    const kinds = made(week(), { groupBy: { kind: 'assetKind' } });
    expect(trendOfCell(kinds, cellsOf(kinds)[5], noPath)).toBeNull();
    expect(data.window.end).toBe(NOON);
  });
});
