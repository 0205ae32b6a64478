import fc from 'fast-check';
import type { Asset } from '../api/assets';
import type { ReadoutParts } from '../board/board';
import type { QueryAnswer } from '../domain/query';
import { NOTHING_ALONG } from '../drawing/trend/trendPlot';
import { groupedAnswer, groupedInputs, type GivenGroup } from '../testing/groupedReadout';
import { formFor, formOf, isInCopies, type ReadoutForm } from './forms';
import type { GroupsData } from './groupsData';
import { copiesWords, MOST_COPIES, type MultiplesData } from './multiples';
import { isProblem, type ReadData, type ReadingAnswers, type ReadoutInputs } from './readoutData';
import type { RankingData } from './rankingData';
import type { TrendData } from './trendData';
import type { ScatterData } from './scatterData';

const FRAME = { width: 700, height: null, focus: null, along: NOTHING_ALONG };

/** A readout by asset, one copy for each plant. */
const inputsOf = (form: ReadoutForm, parts: ReadoutParts = {}, more: readonly string[] = []): ReadoutInputs =>
  groupedInputs(form, { multiplesBy: { kind: 'plant' }, ...parts }, more);
const formIn = ({ readout }: ReadoutInputs) => formFor(readout as never);

/** Groups by plant, put into one answer as the planner gives it. */
function answerOf(plants: Readonly<Record<string, readonly GivenGroup[]>>, units?: string[]): QueryAnswer {
  const answers = Object.entries(plants).map(([plant, groups]) => {
    const answer = groupedAnswer(groups, units);
    return {
      ...answer,
      groups: answer.groups.map((group) => ({ ...group, path: [plant], pathAssetIds: [`id of ${plant}`] })),
    };
  });
  return { ...answers[0], groups: answers.flatMap(({ groups }) => groups) };
}
const given = (...values: (number | null)[]): GivenGroup[] =>
  values.map((value, i) => ({ name: `Dryer ${i + 1}`, values: [value] }));

function copiesOf(inputs: ReadoutInputs, answers: ReadingAnswers): MultiplesData {
  const data = formIn(inputs).data(inputs, answers);
  if (isProblem(data)) throw new Error(data.problem.text);
  return data as unknown as MultiplesData;
}

describe('small copies of a readout', () => {
  it('are drawn only of groups', () => {
    const by = { multiplesBy: { kind: 'plant' as const } };
    expect(isInCopies({ groupBy: null, ...by })).toBe(false);
    expect(isInCopies({ groupBy: { kind: 'asset' }, ...by })).toBe(true);
    expect(isInCopies({ groupBy: { kind: 'asset' }, multiplesBy: null })).toBe(false);
  });

  it('ask once, with the grouping around that of the readout', () => {
    const inputs = inputsOf('ranking', { groupBy: { kind: 'asset' } });
    const [request] = formIn(inputs).requests(inputs)!;
    expect(request).toMatchObject({
      kind: 'query',
      ask: { groupBy: { kind: 'asset' }, within: [{ kind: 'plant' }] },
    });
  });

  it.each<ReadoutForm>([
    'gauge',
    'straight',
    'tank',
    'lamp',
    'figure',
    'ranking',
    'table',
    'breakdown',
    'ring',
  ])('of a %s have the numbers that each group has by itself, for any answer', (form) => {
    const amount = fc.option(fc.integer({ min: -50, max: 900 }), { nil: null });
    fc.assert(
      fc.property(
        fc.dictionary(
          fc.constantFrom('Quayside', 'Foundry Lane', 'Upper Weir'),
          fc.array(amount, { minLength: 1, maxLength: 6 }),
          { minKeys: 1 },
        ),
        (plants) => {
          const inputs = inputsOf(form);
          const groups = Object.fromEntries(
            Object.entries(plants).map(([name, all]) => [name, given(...all)]),
          );
          const count = formIn(inputs).requests(inputs)!.length;
          const whole = answerOf(groups);
          // What is asked about all together has one group for each plant.
          const answers = Array.from({ length: count }, (_, i) =>
            i % 2 === 1 && form === 'breakdown' ? undefined : whole,
          );
          const made = formIn(inputs).data(inputs, answers);
          const own = Object.entries(groups).map(([name, all]) => {
            const alone = { ...inputs, readout: { ...inputs.readout, multiplesBy: null } };
            const answer = groupedAnswer(all);
            const data = formOf(form).data(
              alone,
              answers.map((each) => each && answer),
            );
            return { name, table: isProblem(data) ? null : formOf(form).table(data) };
          });
          const drawn = own.filter(({ table }) => table !== null);
          if (isProblem(made)) return expect(drawn).toEqual([]);
          const { rows } = formIn(inputs).table(made);
          expect(rows).toEqual(drawn.flatMap(({ name, table }) => table!.rows.map((row) => [name, ...row])));
          const scene = formIn(inputs).scene(made, FRAME);
          expect(JSON.stringify(scene)).not.toMatch(/NaN|Infinity/);
        },
      ),
      { numRuns: 20 },
    );
  });

  it('have one scale: equal lengths are equal amounts', () => {
    const plants = { Quayside: given(10, 20), 'Foundry Lane': given(500) };
    const widest = (form: ReadoutForm): number[] => {
      const inputs = inputsOf(form);
      const { copies } = copiesOf(inputs, [answerOf(plants)]);
      return copies.map(({ data }) => {
        const { beside } = data as GroupsData;
        return Math.max(...(beside?.[0] ?? []));
      });
    };
    expect(widest('ranking')).toEqual([500, 500]);
    const gauge = inputsOf('gauge');
    const ends = copiesOf(gauge, [answerOf(plants)]).copies.map(
      ({ data }) => (data as ReadData & { readout: { scale: { ends: number[] } } }).readout.scale.ends,
    );
    expect(ends[0]).toEqual(ends[1]);
    expect(ends[0][1]).toBeGreaterThanOrEqual(500);
  });

  it('of a trend have the ends that fit all of them, of a stack those of the sums', () => {
    const plants = {
      Quayside: [{ name: 'Dryer 1', values: [[5, 10, 10]] }],
      'Foundry Lane': [
        { name: 'Dryer 1', values: [[200, 300, 310]] },
        { name: 'Dryer 2', values: [[200, 100, 290]] },
      ],
    };
    const endsOf = (mark: 'line' | 'stacked'): (readonly number[] | null)[] => {
      const inputs = inputsOf('trend', { mark, bucket: 'day' });
      return copiesOf(inputs, [answerOf(plants)]).copies.map(
        ({ data }) => (data as unknown as TrendData).readout.scale.ends,
      );
    };
    for (const mark of ['line', 'stacked'] as const) {
      const [one, two] = endsOf(mark);
      expect(one).toEqual(two);
      expect(one![1]).toBeGreaterThanOrEqual(mark === 'stacked' ? 600 : 310);
    }
  });

  it('of a scatter compare sizes over all of them', () => {
    const point = (size: number): GivenGroup[] => [{ name: 'Dryer 1', values: [1, 2, size] }];
    const inputs = inputsOf('scatter', {}, ['2', '2']);
    const plants = { Quayside: point(25), 'Foundry Lane': point(100) };
    const sizes = copiesOf(inputs, [answerOf(plants, ['kWh', 'kg', 'kg'])]).copies.map(
      ({ data }) => (data as ScatterData).points[0].size,
    );
    expect(sizes).toEqual([0.25, 1]);
  });

  it('each get their own answer to what they ask further', () => {
    const inputs = inputsOf('ranking', { rows: 1 });
    const first = [
      answerOf({ Quayside: given(9, 4, 1), 'Foundry Lane': given(7), 'Upper Weir': given(6, 5) }),
    ];
    const further = formIn(inputs).further(inputs, first);
    expect(further).toHaveLength(2);
    const others = [
      groupedAnswer([{ name: 'All', values: [5] }]),
      groupedAnswer([{ name: 'All', values: [50] }]),
    ];
    const { copies } = copiesOf(inputs, [...first, ...others]);
    expect(
      copies.map(({ name, data }) => [name, (data as unknown as RankingData).others?.values[0]?.value]),
    ).toEqual([
      ['Quayside', 5],
      ['Foundry Lane', undefined],
      ['Upper Weir', 50],
    ]);
  });

  it('go on within their group, and only within the scope of the readout', () => {
    const scope = { assetIds: ['hall'], attributes: [] };
    const inputs = inputsOf('figure', { scope });
    const answers = [answerOf({ Quayside: given(1), 'Foundry Lane': given(2) })];
    const asked = formIn(inputs).facts(inputs, answers);
    expect(asked).toEqual(['hall', 'id of Quayside', 'id of Foundry Lane']);
    const paths: Record<string, string[]> = { hall: ['id of Quayside', 'hall'] };
    const facts = new Map(asked.map((id) => [id, { id, path: paths[id] ?? [id] } as unknown as Asset]));
    const { copies } = copiesOf({ ...inputs, facts }, answers);
    expect(copies.map(({ readout }) => readout.scope?.assetIds)).toEqual([['hall'], []]);
    expect(copies.every(({ readout }) => readout.multiplesBy === null)).toBe(true);
  });

  it('say of which groups nothing is drawn, and how many are too many', () => {
    const point = (y: number | null): GivenGroup[] => [{ name: 'Dryer 1', values: [1, y] }];
    const inputs = inputsOf('breakdown', { keepBlanks: false });
    const data = copiesOf(inputs, [
      answerOf({ Quayside: given(1), 'Foundry Lane': [{ name: '', values: [3] }] }),
    ]);
    expect(copiesWords(data)).toBe('Not drawn: Foundry Lane (nothing in this scope).');
    const many = Object.fromEntries(
      Array.from({ length: MOST_COPIES + 2 }, (_, i) => [`Plant ${i}`, point(i)]),
    );
    const scatters = inputsOf('scatter', {}, ['2']);
    const { copies, beyond } = copiesOf(scatters, [answerOf(many, ['kWh', 'kg'])]);
    expect([copies.length, beyond]).toEqual([MOST_COPIES, 2]);
    expect(copiesWords({ leftOut: [], beyond })).toBe('2 more groups are not drawn; narrow the scope.');
  });
});
