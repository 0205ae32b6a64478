import fc from 'fast-check';
import { ranksOf } from '../stats/ranks';
import { groupedAnswer, groupedInputs, type GivenGroup } from '../testing/groupedReadout';
import { moveWords, ranking, rankingScene, rankingWords, RANKING_HITS } from './ranking';
import { rankingFurther, rankingRequests, type RankingData } from './rankingData';
import { isProblem, type ReadingAnswers, type ReadoutInputs } from './readoutData';
import type { RankingChoices } from './rankingData';

type Inputs = ReadoutInputs<RankingChoices>;

const LOWER = { direction: 'lower', caution: 30, breach: 60, target: 20 } as const;
const HIGHER = { direction: 'higher', caution: 30, breach: 20, target: 40 } as const;

function ranked(inputs: Inputs, answers: ReadingAnswers): RankingData {
  const data = ranking.data(inputs, answers);
  if (isProblem(data)) throw new Error(data.problem.text);
  return data;
}
const given = (...values: (number | null)[]): GivenGroup[] =>
  values.map((value, i) => ({ name: `Dryer ${i + 1}`, values: [value] }));
const namesOf = ({ rows }: RankingData): string[] => rows.map(({ name, rank }) => `${rank ?? '–'} ${name}`);

describe('ranks', () => {
  it('are one more than the number of better values, equal ones sharing theirs', () => {
    fc.assert(
      fc.property(
        fc.array(fc.option(fc.integer({ min: -5, max: 5 }), { nil: null })),
        fc.constantFrom('largest' as const, 'smallest' as const),
        (values, order) => {
          const naive = values.map((value) =>
            value === null
              ? null
              : 1 +
                values.filter((each) => each !== null && (order === 'largest' ? each > value : each < value))
                  .length,
          );
          expect(ranksOf(values, order)).toEqual(naive);
        },
      ),
    );
  });
});

describe('a ranking', () => {
  it('puts the largest first, equal ones by name, and those without data at the end without a rank', () => {
    const data = ranked(groupedInputs('ranking'), [groupedAnswer(given(3, null, 9, 3))]);
    expect(namesOf(data)).toEqual(['1 Dryer 3', '2 Dryer 1', '2 Dryer 4', '– Dryer 2']);
    expect(rankingWords(data)).toContain('1 without data has no rank');
  });

  it('sorts by the smallest, by name, and by how far a value is on the worse side of its target', () => {
    const answer = groupedAnswer(given(25, 90, 5, 70));
    const by = (order: RankingChoices['order'], band: typeof LOWER | typeof HIGHER | null = null): string[] =>
      namesOf(ranked(groupedInputs('ranking', { order, band }), [answer])).map((each) => each.slice(-1));
    expect(by('smallest')).toEqual(['3', '1', '4', '2']);
    expect(by('name')).toEqual(['1', '2', '3', '4']);
    expect(by('worst', LOWER)).toEqual(['2', '4', '1', '3']);
    expect(by('worst', HIGHER)).toEqual(['3', '1', '4', '2']);
    // Nothing is off a target that is not there.
    expect(by('worst')).toEqual(['2', '4', '1', '3']);
  });

  it('asks for the whole where shares are shown, and for what was cut off, each measure by itself', () => {
    const inputs: Inputs = groupedInputs('ranking', { rows: 2, shares: 'running' }, ['3']);
    const asks = rankingRequests(inputs)!;
    expect(asks.map(({ ask }) => ('groupBy' in ask ? ask.groupBy.kind : ''))).toEqual(['asset', 'all']);
    const first = groupedAnswer(
      given(50, 30, 15, 5).map((each) => ({ ...each, values: [each.values[0], 190] })),
      ['kWh', '°C'],
    );
    const whole = groupedAnswer([{ name: 'All', values: [100] }]);
    const further = rankingFurther(inputs, [first, whole]);
    expect(further.map(({ ask }) => 'measures' in ask && ask.measures.map(({ select }) => select))).toEqual([
      [{ metricIds: ['2 0', '3 0'] }],
      [{ metricIds: ['2 1', '3 1'] }],
    ]);
    const data = ranked(inputs, [
      first,
      whole,
      groupedAnswer([{ name: 'All', values: [20] }]),
      groupedAnswer([{ name: 'All', values: [191] }], ['°C']),
    ]);
    expect(data.rows.map(({ share, running }) => [share, running])).toEqual([
      [0.5, 0.5],
      [0.3, 0.8],
    ]);
    expect(data.others).toMatchObject({ count: 2, unknown: 0 });
    expect(data.others!.share).toBeCloseTo(0.2, 12);
    expect(data.others!.values.map((value) => [value?.value, value?.unit])).toEqual([
      [20, 'kWh'],
      [191, '°C'],
    ]);
  });

  it('keeps totals whole whatever is cut off: rows and others share what there is', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 1000 }), { minLength: 1, maxLength: 30 }),
        fc.option(fc.integer({ min: 1, max: 8 }), { nil: null }),
        fc.option(fc.integer({ min: 0, max: 100 }), { nil: null }),
        fc.option(fc.integer({ min: 0, max: 20 }), { nil: null }),
        (values, rows, leastValue, leastShare) => {
          const total = values.reduce((a, b) => a + b, 0);
          fc.pre(total > 0);
          const inputs: Inputs = groupedInputs('ranking', { rows, leastValue, leastShare, shares: 'share' });
          const whole = groupedAnswer([{ name: 'All', values: [total] }]);
          const data = ranked(inputs, [groupedAnswer(given(...values)), whole]);
          const shown = data.rows.reduce((sum, { share }) => sum + share!, 0);
          expect(shown + (data.others?.share ?? 0)).toBeCloseTo(1, 9);
          expect(data.rows.length + (data.others?.count ?? 0)).toBe(values.length);
          for (const {
            values: [value],
            share,
          } of data.rows) {
            expect(value.value).toBeGreaterThanOrEqual(leastValue ?? 0);
            expect(share! * 100).toBeGreaterThanOrEqual((leastShare ?? 0) - 1e-9);
          }
        },
      ),
    );
  });

  it('says so where groups lie within others, and has no shares of a whole with negative parts', () => {
    const inputs: Inputs = groupedInputs('ranking', { shares: 'share' });
    const whole = groupedAnswer([{ name: 'All', values: [100] }]);
    const nested = ranked(inputs, [groupedAnswer(given(100, 60)), whole]);
    expect(rankingWords(nested)).toContain('Some lie within others');
    const negative = ranked(inputs, [groupedAnswer(given(100, -60)), whole]);
    expect([negative.total, negative.rows[0].share]).toEqual([null, null]);
  });

  it('compares ranks with those of the reference window', () => {
    const groups = given(5, 4, 3).map((each, i) => ({ ...each, previous: [[1, 9, null][i]] }));
    const data = ranked(groupedInputs('ranking', { moves: true }), [groupedAnswer(groups)]);
    expect(data.rows.map(moveWords)).toEqual(['up 1, was 2', 'down 1, was 1', 'no rank before']);
  });

  it('shows several measures with the scale, the level and the decimals of each, and sorts by any', () => {
    const inputs: Inputs = groupedInputs(
      'ranking',
      { by: 1, band: LOWER, moreBands: [{ ...HIGHER, target: 30 }], display: 'thousands' },
      ['3'],
    );
    const groups = [
      { name: 'Dryer 1', values: [50_000, 25] },
      { name: 'Dryer 2', values: [10, 35] },
    ];
    const data = ranked(inputs, [groupedAnswer(groups, ['kWh', '°C'])]);
    expect(namesOf(data)).toEqual(['1 Dryer 2', '2 Dryer 1']);
    expect(data.rows[1].values.map(({ value, unit, level }) => [value, unit, level])).toEqual([
      [50, 'thousand kWh', 'breach'],
      [25, '°C', 'caution'],
    ]);
    expect(ranking.table(data).rows[0]).toEqual([
      1,
      'Dryer 2',
      0.01,
      'Clear',
      100,
      35,
      'Clear',
      100,
      null,
      null,
      null,
    ]);
  });

  it('ranks metrics chosen one by one, but only of one unit', () => {
    const inputs: Inputs = groupedInputs('ranking', { groupBy: null }, ['2']);
    expect(
      ranking.data(inputs, [groupedAnswer([{ name: 'All', values: [5, 9] }], ['kWh', 'kg'])]),
    ).toMatchObject({ problem: { title: 'Nothing to compare' } });
    const data = ranked(inputs, [groupedAnswer([{ name: 'All', values: [5, 9] }], ['kg', 'kg'])]);
    expect(namesOf(data)).toEqual(['1 Dried weight', '2 Gas used']);
  });

  it('fits any width: nothing is drawn beyond it, and every row and number can be hit', () => {
    fc.assert(
      fc.property(
        fc.array(fc.string({ minLength: 1, maxLength: 40 }), { minLength: 1, maxLength: 12 }),
        fc.integer({ min: 280, max: 1100 }),
        fc.boolean(),
        (names, width, many) => {
          const groups = [...new Set(names)].map((name, i) => ({ name, values: many ? [i, 190] : [i] }));
          const inputs: Inputs = groupedInputs('ranking', { band: LOWER }, many ? ['3'] : []);
          const data = ranked(inputs, [groupedAnswer(groups, ['kWh', '°C'])]);
          const { hits, height } = rankingScene(data, { width, focus: null });
          for (const { shape } of hits) {
            if (shape.kind !== 'box') throw new Error('only boxes');
            expect(shape.x + shape.width).toBeLessThanOrEqual(width + 0.01);
            expect(shape.y + shape.height).toBeLessThanOrEqual(height);
          }
          const rows = hits.filter(({ key }) => key.startsWith(RANKING_HITS.row));
          const values = hits.filter(({ key }) => key.startsWith(RANKING_HITS.value));
          expect([rows.length, values.length]).toEqual([groups.length, groups.length * (many ? 2 : 1)]);
        },
      ),
      { numRuns: 40 },
    );
  });
});
