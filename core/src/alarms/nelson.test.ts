import { brokenRunRules, individualsChart, RUN_RULES } from './nelson';

const ALL = RUN_RULES.map(({ rule }) => rule);

describe('run rules after Nelson (1984), wording from memory', () => {
  // For each rule a row that just breaks it, and one that is a single point short of it.
  const rows: [number, number[], number[]][] = [
    [1, [3.1], [3]],
    [2, Array(9).fill(0.5), Array(8).fill(0.5)],
    [3, [-0.9, -0.5, -0.1, 0.3, 0.7, 1.1], [-0.5, -0.1, 0.3, 0.7, 1.1]],
    [
      4,
      Array.from({ length: 14 }, (_, i) => (i % 2 ? 1.2 : -1.2)),
      Array.from({ length: 13 }, (_, i) => (i % 2 ? 1.2 : -1.2)),
    ],
    [5, [2.1, 0, 2.1], [2.1, 0, 1.9]],
    [6, [1.1, 1.1, 0, 1.1, 1.1], [1.1, 1.1, 0, 0.9, 1.1]],
    [
      7,
      Array.from({ length: 15 }, (_, i) => (i % 3) * 0.4 - 0.4),
      Array.from({ length: 14 }, (_, i) => (i % 3) * 0.4 - 0.4),
    ],
    [8, [1.5, -1.5, -1.2, 1.5, 1.3, -1.5, 1.5, -1.5], [1.5, -1.5, -1.2, 1.5, 0.9, -1.5, 1.5, -1.5]],
  ];

  it.each(rows)('rule %i breaks at its last point, not one short of it', (rule, breaks, keeps) => {
    expect(brokenRunRules(breaks, [rule])).toEqual([rule]);
    expect(brokenRunRules(keeps, [rule])).toEqual([]);
    // Below the centre line as above it.
    expect(
      brokenRunRules(
        breaks.map((z) => -z),
        [rule],
      ),
    ).toEqual([rule]);
  });

  it('says nothing of a quiet chart, nor of none', () => {
    expect(brokenRunRules([0.2, -0.4, 1.1, -0.3, 0.8, -1.2, 0.1], ALL)).toEqual([]);
    expect(brokenRunRules([], ALL)).toEqual([]);
  });

  it('counts a point on the centre line for neither side', () => {
    expect(brokenRunRules([...Array(8).fill(0.5), 0], [2])).toEqual([]);
  });
});

describe('individualsChart', () => {
  it('gives centre and limits of the flow-rate example in the NIST/SEMATECH e-Handbook, 6.3.2.2 (from memory)', () => {
    // Ten batches; mean 50.81, mean moving range 1.8778, limits 55.8041 and 45.8159.
    const flow = [49.6, 47.6, 49.9, 51.3, 47.8, 51.2, 52.6, 52.4, 53.6, 52.1];
    const { centre, sigma } = individualsChart(flow)!;
    expect(centre).toBeCloseTo(50.81, 4);
    expect(centre + 3 * sigma).toBeCloseTo(55.8041, 2);
    expect(centre - 3 * sigma).toBeCloseTo(45.8159, 2);
  });

  it('has no range over a missing value', () => {
    // Ranges 1 and 2, and none from 11 to 21.
    const { centre, sigma } = individualsChart([10, 11, NaN, 21, 23])!;
    expect(centre).toBeCloseTo(65 / 4, 12);
    expect(sigma).toBeCloseTo(1.5 / (2 / Math.sqrt(Math.PI)), 12);
  });

  it('is none without spread', () => {
    expect(individualsChart([5])).toBeNull();
    expect(individualsChart([5, 5, 5])).toBeNull();
  });
});
