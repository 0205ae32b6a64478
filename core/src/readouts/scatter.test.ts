import fc from 'fast-check';
import { placeNames, overlaps } from '../drawing/placeNames';
import { hitAt } from '../drawing/scene';
import { groupedAnswer, groupedInputs } from '../testing/groupedReadout';
import { isProblem, type ReadoutInputs } from './readoutData';
import { pointWords, scatter, scatterScene } from './scatter';
import { quadrantsOf, type ScatterChoices, type ScatterData } from './scatterData';

type Inputs = ReadoutInputs<ScatterChoices>;
const UNITS = ['kWh', 'kg', '°C'];
const BAND = { direction: 'lower', caution: 30, breach: 60, target: 20 } as const;

function scattered(groups: readonly (number | null)[][], parts = {}, more = ['2', '3']): ScatterData {
  const inputs: Inputs = groupedInputs('scatter', parts, more);
  const answer = groupedAnswer(
    groups.map((values, i) => ({ name: `Dryer ${i + 1}`, values })),
    UNITS,
  );
  const data = scatter.data(inputs, [answer]);
  if (isProblem(data)) throw new Error(data.problem.title);
  return data;
}

describe('names beside points', () => {
  it('lie inside the plot, and cover neither one another nor another point', () => {
    const room = { x: 40, y: 20, width: 300, height: 200 };
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            name: fc.string({ minLength: 1, maxLength: 24 }),
            x: fc.integer({ min: 40, max: 340 }),
            y: fc.integer({ min: 20, max: 220 }),
            r: fc.integer({ min: 3, max: 15 }),
          }),
          { maxLength: 40 },
        ),
        (given) => {
          const points = given.map((each, i) => ({ ...each, key: String(i) }));
          const names = placeNames(points, room, { face: 'medium', size: 12 });
          names.forEach(({ box, key }, i) => {
            expect(box.x).toBeGreaterThanOrEqual(room.x);
            expect(box.x + box.width).toBeLessThanOrEqual(room.x + room.width);
            for (const other of names.slice(i + 1)) expect(overlaps(box, other.box)).toBe(false);
            for (const { key: own, x, y, r } of points) {
              const circle = { x: x - r, y: y - r, width: 2 * r, height: 2 * r };
              if (own !== key) expect(overlaps(box, circle)).toBe(false);
            }
          });
        },
      ),
    );
  });
});

describe('a scatter', () => {
  it('draws only groups that have both values, and says which have not', () => {
    const data = scattered([
      [10, 5, 1],
      [null, 5, 1],
      [0, 0, null],
    ]);
    expect(data.points.map(({ name, x, y, size }) => [name, x, y, size])).toEqual([
      ['Dryer 1', 10, 5, 1],
      ['Dryer 3', 0, 0, null],
    ]);
    expect(scatterScene(data, { width: 400, height: null, focus: null }).spoken).toMatch(
      /Dryer 2 without both values is not drawn/,
    );
  });

  it('has the worse of its two levels, and none where too little is known', () => {
    const parts = { band: BAND, moreBands: [{ ...BAND, caution: 5, breach: 10 }] };
    const data = scattered(
      [
        [10, 7],
        [70, 1],
        [1, 1],
      ],
      parts,
      ['2'],
    );
    expect(data.points.map(({ level }) => level)).toEqual(['caution', 'breach', 'clear']);
    expect(pointWords(data, data.points[1])).toMatch(
      /^Dryer 2: Gas used 70\skWh, Dried weight 1.0\skg, Breach$/,
    );
  });

  it('counts every point in one quadrant of the two targets', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ x: fc.integer({ min: -5, max: 5 }), y: fc.integer({ min: -5, max: 5 }) })),
        (points) => {
          expect(quadrantsOf(points, 0, 0).reduce((a, b) => a + b, 0)).toBe(points.length);
        },
      ),
    );
    expect(
      quadrantsOf(
        [
          { x: 0, y: 0 },
          { x: -1, y: 3 },
          { x: -1, y: -1 },
        ],
        0,
        0,
      ),
    ).toEqual([1, 1, 1, 0]);
  });

  it('asks for a second measure and for groups', () => {
    expect(scatter.data(groupedInputs('scatter'), [])).toMatchObject({
      problem: { title: 'A scatter needs two measures' },
    });
  });

  it('gives a tap to the nearest point, also among thousands', () => {
    const data = scattered(Array.from({ length: 5000 }, (_, i) => [i, (i * 7919) % 5000, 1]));
    const { hits } = scatterScene(data, { width: 600, height: null, focus: null });
    expect(hits).toHaveLength(5000);
    for (const near of [hits[17], hits[4000]]) {
      if (near.shape.kind !== 'point') throw new Error('only points');
      const [x, y] = [near.shape.cx + 3, near.shape.cy - 2];
      const hit = hitAt(hits, x, y)!;
      const far = hits.map(({ shape }) =>
        shape.kind === 'point' ? Math.hypot(shape.cx - x, shape.cy - y) : NaN,
      );
      const { shape } = hit;
      if (shape.kind !== 'point') throw new Error('only points');
      expect(Math.hypot(shape.cx - x, shape.cy - y)).toBe(Math.min(...far));
    }
  });
});
