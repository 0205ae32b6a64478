import { pie, stack } from 'd3-shape';
import fc from 'fast-check';
import { stepDown } from '../board/stepDown';
import { stackedColumns } from '../stats/stacked';
import { groupedAnswer, groupedInputs, type GivenGroup } from '../testing/groupedReadout';
import { breakdown, breakdownScene } from './breakdown';
import { heightsOf, totalsBefore, type BreakdownChoices, type BreakdownData } from './breakdownData';
import { BREAKDOWN_HITS } from './breakdownMarks';
import { isProblem, type ReadoutInputs } from './readoutData';

type Inputs = ReadoutInputs<BreakdownChoices>;

const given = (...values: (number | null)[]): GivenGroup[] =>
  values.map((value, i) => ({ name: `Meter ${i + 1}`, values: [value] }));

function made(parts: readonly GivenGroup[], measured: number | null, choices: object = {}): BreakdownData {
  const inputs: Inputs = groupedInputs('breakdown', choices);
  const data = breakdown.data(inputs, [
    groupedAnswer(parts),
    groupedAnswer([{ name: 'All', values: [measured] }]),
  ]);
  if (isProblem(data)) throw new Error(data.problem.title);
  return data;
}
const told = (data: BreakdownData): string =>
  breakdownScene(data, { width: 400, height: null, focus: null }).spoken;

describe('stacked columns', () => {
  const course = fc.array(fc.option(fc.double({ min: 0, max: 1e6, noNaN: true }), { nil: null }), {
    minLength: 4,
    maxLength: 4,
  });

  it('lie where d3-shape stacks them', () => {
    fc.assert(
      fc.property(fc.array(course, { minLength: 1, maxLength: 6 }), (courses) => {
        const rows = Array.from({ length: 4 }, (_, k) => courses.map((each) => each[k] ?? 0));
        const series = stack<number[], number>()
          .keys(courses.map((_, i) => i))
          .value((row, key) => row[key])(rows);
        stackedColumns(courses, 4, false).forEach((column, k) => {
          for (const { of, from, to } of column) {
            expect(from).toBeCloseTo(series[of][k][0], 6);
            expect(to).toBeCloseTo(series[of][k][1], 6);
          }
        });
      }),
    );
  });

  it('end at a hundred as shares, or are empty', () => {
    fc.assert(
      fc.property(fc.array(course, { minLength: 1, maxLength: 6 }), (courses) => {
        for (const column of stackedColumns(courses, 4, true)) {
          if (column.length > 0) expect(column.at(-1)!.to).toBeCloseTo(100, 6);
        }
      }),
    );
  });
});

describe('a breakdown', () => {
  it('asks for the parts and for everything together, of an asset only what lies in it', () => {
    const inputs: Inputs = groupedInputs('breakdown', {
      groupBy: { kind: 'part', assetId: '7' },
      parts: 'overTime',
    });
    const asks = breakdown.requests(inputs)!.map(({ ask, isExtra }) => ({ ...ask, isExtra }));
    expect(asks).toMatchObject([
      { groupBy: { kind: 'part' }, bucket: null, isExtra: false },
      { groupBy: { kind: 'all' }, scope: { assetIds: ['7'] }, isExtra: true },
      { groupBy: { kind: 'part' }, bucket: 'hour', isExtra: false },
      { groupBy: { kind: 'all' }, bucket: 'hour', isExtra: true },
    ]);
  });

  it('has what no part has measured as a part of its own, so that shares are of the meter', () => {
    const data = made(given(50, 30), 100, { groupBy: { kind: 'part', assetId: '7' } });
    expect(data.parts.map(({ name, value, share }) => [name, value, share])).toEqual([
      ['Meter 1', 50, 0.5],
      ['Meter 2', 30, 0.3],
      ['not measured by a part', 20, 0.2],
    ]);
    expect([data.total, data.excess]).toEqual([100, 0]);
  });

  it('says so where the parts exceed the meter, and where one is missing, zero or below zero', () => {
    const data = made(given(80, 30, null, -5, 0), 100);
    expect(data.excess).toBeCloseTo(10, 9);
    expect(told(data)).toMatch(/The parts are 10.0\skWh more than the 100.0\skWh measured/);
    expect(told(data)).toMatch(/One part has no data.*One part is below zero and not in the total/);
    expect(data.parts.map(({ name, value }) => [name, value])).toEqual([
      ['Meter 1', 80],
      ['Meter 2', 30],
      ['3 others', 0],
    ]);
  });

  it('tells parts of too little data, an unfinished window, and that a rest may hold a part without data', () => {
    const thin = made([{ name: 'Meter 1', values: [50], coverage: 0.4 }], 50);
    expect(told(thin)).toContain('Less than 75 % of the data: Meter 1 (40 %)');
    expect(told(made(given(50, null), 80))).toContain('no data, so that the rest may hold what it used');
    const open = made(given(50), 50);
    expect(told(open)).not.toContain('Unfinished');
    expect(told({ ...open, now: open.window.end - 1 })).toContain('Unfinished period.');
  });

  it('follows what is picked', () => {
    const data = made(given(50, 30, 20), 100, { without: ['Meter 1'] });
    expect(data.total).toBe(50);
    expect(data.parts.map(({ share }) => share)).toEqual([null, 0.6, 0.4]);
    expect(
      breakdownScene(data, { width: 400, height: null, focus: null }).hits.map(({ spoken }) => spoken),
    ).toContain('Count Meter 1 in the total');
  });

  it('keeps the whole for any parts, however many are small', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 1000 }), { minLength: 1, maxLength: 40 }), (values) => {
        const sum = values.reduce((a, b) => a + b, 0);
        fc.pre(sum > 0);
        const data = made(given(...values), sum);
        expect(data.total).toBeCloseTo(sum, 6);
        expect(data.parts.reduce((all, { share }) => all + (share ?? 0), 0)).toBeCloseTo(1, 9);
        expect(data.parts.length).toBeLessThanOrEqual(9);
      }),
    );
  });

  it('draws one part, equal parts, and names of any length at any width', () => {
    const long = 'لوحة '.repeat(40);
    for (const width of [280, 900]) {
      for (const parts of ['strip', 'ring', 'bars'] as const) {
        const data = made([{ name: long, values: [5] }], 5, { parts });
        const { hits } = breakdownScene(data, { width, height: null, focus: null });
        for (const { shape } of hits)
          if (shape.kind === 'box') expect(shape.x + shape.width).toBeLessThanOrEqual(width + 0.01);
        expect(made(given(1, 1, 1), 3, { parts }).parts.map(({ share }) => share)).toEqual([
          1 / 3,
          1 / 3,
          1 / 3,
        ]);
      }
    }
  });

  it('stacks periods, marks what is thin or unfinished, and has the rest of each', () => {
    const inputs: Inputs = groupedInputs('breakdown', { parts: 'overTime', bucket: 'day' });
    const byDay = groupedAnswer([
      { name: 'Meter 1', values: [[4, null, 2]] },
      { name: 'Meter 2', values: [[1, 5, 1]] },
    ]);
    const data = breakdown.data(inputs, [
      groupedAnswer(given(6, 7)),
      groupedAnswer([{ name: 'All', values: [20] }]),
      byDay,
      groupedAnswer([{ name: 'All', values: [[8, 6, 3]] }]),
    ]);
    if (isProblem(data)) throw new Error(data.problem.title);
    expect(data.parts.map(({ name, course }) => [name, course])).toEqual([
      ['Meter 2', [1, 5, 1]],
      ['Meter 1', [4, null, 2]],
      ['not measured by a part', [3, 1, 0]],
    ]);
    expect(data.periods?.covered).toEqual([true, false, true]);
    expect(told(data)).toContain('Faint columns');
    expect(breakdown.table(data).rows).toHaveLength(3);
  });

  it('as a ring has the angles of d3-shape, and a number for each part that has room', () => {
    const amounts = fc.array(fc.integer({ min: 1, max: 1000 }), { minLength: 2, maxLength: 8 });
    fc.assert(
      fc.property(amounts, (values) => {
        const data = made(given(...values), null, { parts: 'ring' });
        const { hits, marks } = breakdownScene(data, { width: 400, height: null, focus: null });
        const drawn = hits.flatMap(({ key, shape }) =>
          key.startsWith(BREAKDOWN_HITS.drawn) && shape.kind === 'ring' ? [shape] : [],
        );
        const arcs = pie<number>().sort(null)(data.parts.map(({ value }) => value!));
        arcs.forEach(({ startAngle, endAngle }, i) => {
          expect(drawn[i].from).toBeCloseTo((startAngle * 180) / Math.PI, 6);
          expect(drawn[i].to).toBeCloseTo((endAngle * 180) / Math.PI, 6);
        });
        // The largest always has room; numbers are those of the list.
        expect(JSON.stringify(marks)).toMatch(/"key":"numbers","words":\[\{[^\]]*"text":"1"/);
      }),
    );
  });

  it('puts each period beside that of the reference window, of what is picked, and leaves out what is not known', () => {
    const inputs: Inputs = groupedInputs('breakdown', {
      parts: 'overTime',
      bucket: 'day',
      without: ['Meter 3'],
      compare: 'lastYear',
    });
    expect(breakdown.requests(inputs)![2].ask).toMatchObject({ bucket: 'day', compare: 'lastYear' });
    const values = [
      { name: 'Meter 1', values: [[4, 3, 2]] },
      { name: 'Meter 2', values: [[1, 5, 1]] },
      { name: 'Meter 3', values: [[9, 9, 9]] },
    ];
    const before = [
      [10, null, 30],
      [1, 2, 40],
      [500, 500, 500],
    ];
    const byDay = groupedAnswer(values);
    const compared = {
      ...byDay,
      groups: byDay.groups.map((group, i) => ({
        ...group,
        measures: [{ ...group.measures[0], before: before[i] }],
      })),
    };
    const data = breakdown.data(inputs, [groupedAnswer(given(9, 7, 27)), undefined, compared, undefined]);
    if (isProblem(data)) throw new Error(data.problem.title);
    expect(totalsBefore(data)).toEqual([11, null, 70]);
    expect(told(data)).toContain('Lines: the same last year.');
    const { columns, rows } = breakdown.table(data);
    expect(columns.at(-1)).toEqual({ name: 'Together, compared with', unit: 'kWh' });
    expect(rows.map((row) => row.at(-1))).toEqual([11, null, 70]);
    // The scale has room for the highest line.
    expect(Math.max(...heightsOf(data))).toBe(70);
  });

  it('refuses means and ratios, and what is not grouped', () => {
    const mean = groupedInputs('breakdown', { measures: [{ metricId: '3', summary: 'mean', per: null }] });
    expect(breakdown.data(mean, [groupedAnswer(given(1))])).toMatchObject({
      problem: { title: 'No whole to have parts of' },
    });
    expect(breakdown.data(groupedInputs('breakdown', { groupBy: null }), [])).toMatchObject({
      problem: { title: 'Nothing to divide' },
    });
  });
});

describe('a step down', () => {
  const noPath = () => undefined;
  const [value] = made([{ name: 'Acme', values: [5], assetId: null }], 5).parts;
  const { readout } = made(given(1), 1);

  it('goes through the groupings that were chosen, each inside the one before, then to assets', () => {
    const steps = [{ kind: 'attribute' as const, name: 'Type' }];
    const byMaker = { ...readout, groupBy: { kind: 'attribute' as const, name: 'Maker' }, steps };
    const first = stepDown(byMaker, value.of!, noPath)!;
    expect(first).toMatchObject({
      label: 'Acme',
      choices: {
        groupBy: { kind: 'attribute', name: 'Type' },
        scope: { assetIds: null, attributes: [{ name: 'Maker', values: ['Acme'] }] },
        steps: [],
      },
    });
    const second = stepDown(
      { ...byMaker, ...first.choices },
      { ...value.of!, group: { name: 'Cage', assetId: null } },
      noPath,
    )!;
    expect(second.choices).toMatchObject({
      groupBy: { kind: 'asset' },
      scope: { attributes: [{ name: 'Maker' }, { name: 'Type', values: ['Cage'] }] },
    });
  });

  it('leads from an asset to the assets right below it, and nowhere where nothing says what its parts are', () => {
    const asset = { ...value.of!, assetId: '9', group: { name: 'Hall', assetId: '9' } };
    expect(stepDown(readout, asset, noPath)?.choices).toMatchObject({
      groupBy: { kind: 'part', assetId: '9' },
      scope: { assetIds: ['9'] },
    });
    // Of the hall only what the readout counts: a readout of two dryers does not grow to the whole hall.
    const paths = new Map([
      ['9', ['1', '9']],
      ['20', ['1', '9', '20']],
      ['30', ['1', '8', '30']],
    ]);
    const ofTwo = { ...readout, scope: { assetIds: ['20', '30'], attributes: [] } };
    expect(stepDown(ofTwo, asset, (id) => paths.get(id))?.choices.scope?.assetIds).toEqual(['20']);
    expect(stepDown({ ...readout, groupBy: { kind: 'assetKind' } }, value.of!, noPath)).toBeNull();
    expect(
      stepDown({ ...readout, groupBy: { kind: 'all' } }, { ...value.of!, assetId: null }, noPath),
    ).toBeNull();
  });
});
