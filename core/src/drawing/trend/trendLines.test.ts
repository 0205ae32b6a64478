import fc from 'fast-check';
import { DEFAULT_TREND_SCALE } from '../../board/scaleChoice';
import { TREND_MARKS } from '../../readouts/trendChoices';
import type { Mark } from '../scene';
import { textWidth } from '../textWidth';
import { namePlaces } from './nameMarks';
import { trendLayout, type TrendSeries } from './trendLayout';
import { trendPanels } from './trendPanels';
import { PLAIN_TREND, trendPlot, type TrendOptions } from './trendPlot';
import { trendScene } from './trendScene';

/* How the lines of a trend are told apart, and that none goes undrawn. */

const series = (key: string, v: readonly (number | null)[], unit = 'kW', name = key): TrendSeries => ({
  key,
  name,
  assetId: `asset of ${key[0]}`,
  answer: {
    window: { start: 0, end: 100 },
    zone: 'UTC',
    unit,
    now: 1000,
    t: v.map((_, i) => i * 10),
    v,
    bucket: null,
    until: null,
    gaps: [],
    samples: v.length,
  },
});
const plotOf = (lines: readonly TrendSeries[], part: Partial<TrendOptions> = {}, width = 800) =>
  trendPlot({ ...PLAIN_TREND, series: lines, decimals: 0, ...part }, width, 240);
const marksOf = (marks: readonly Mark[]): Mark[] =>
  marks.flatMap((mark) => (mark.kind === 'group' ? [mark, ...marksOf(mark.marks)] : [mark]));
const pathsOf = (plot: ReturnType<typeof plotOf>) =>
  marksOf(trendScene(plot).marks).filter((mark) => mark.kind === 'path');
const BROKEN = { ...DEFAULT_TREND_SCALE, broken: true };

describe('the lines of a trend', () => {
  it('are each in one plot, of which each has no more units than axes, for any units and marks', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('kW', '°C', 'bar', ''), { minLength: 1, maxLength: 8 }),
        fc.constantFrom(...TREND_MARKS),
        (units, mark) => {
          const lines = units.map((unit, i) => series(`${i}`, [1, 2], unit));
          const panels = trendPanels(lines, mark);
          expect(
            panels
              .flat()
              .map(({ key }) => key)
              .sort(),
          ).toEqual(lines.map(({ key }) => key).sort());
          for (const panel of panels) {
            const { axes, series: drawn } = plotOf(panel, { mark }).layout;
            expect(drawn).toHaveLength(panel.length);
            expect(axes.length).toBeLessThanOrEqual(mark === 'stacked' ? 1 : 2);
          }
        },
      ),
    );
  });

  it('have a pattern each that stays when another is chosen, which is drawn in ink', () => {
    const lines = ['a', 'b', 'c'].map((key, i) => series(key, [i, i + 1]));
    const dashes = (chosen: string | null) =>
      Object.fromEntries(plotOf(lines, { chosen }).lines.map(({ key, dash }) => [key, dash]));
    expect(new Set(Object.values(dashes(null))).size).toBe(3);
    expect(dashes('c')).toEqual(dashes(null));
    const inked = (chosen: string | null) =>
      pathsOf(plotOf(lines, { chosen })).filter(({ stroke, key }) => stroke === 'ink' && 'abc'.includes(key));
    expect(inked(null).map(({ key }) => key)).toEqual(['a']);
    expect(inked('c')).toMatchObject([{ key: 'c', dash: dashes(null).c }]);
  });

  it('of one asset can each be chosen, and a choice goes before the focus', () => {
    const lines = [series('a1', [1]), series('a2', [2]), series('b', [3])];
    const subject = (chosen: string | null, focus: string | null = null) =>
      plotOf(lines, { chosen, focus }).subject.key;
    expect([subject('a1'), subject('a2')]).toEqual(['a1', 'a2']);
    expect([subject(null, 'asset of b'), subject('a2', 'asset of b'), subject('gone')]).toEqual([
      'b',
      'a2',
      'a1',
    ]);
  });

  it('show a point without a neighbour as a dot, in the colour of its level', () => {
    const band = { direction: 'lower', caution: 5, breach: 8, target: null } as const;
    const lone = plotOf([series('a', [1, null, 9, null, 2, 3])], { band });
    expect(lone.lines[0].lone).toEqual([0, 2]);
    const dots = pathsOf(lone).filter(({ key }) => key.includes('dots'));
    expect(dots.map(({ fill }) => fill).sort()).toEqual(['breach', 'ink']);
    expect(dots.every(({ d }) => d.match(/M/g)!.length === 1)).toBe(true);
    expect(pathsOf(plotOf([series('a', [1, 2, null])])).some(({ key }) => key.includes('dots'))).toBe(false);
  });

  it('have names that end before the second axis, however long they are', () => {
    fc.assert(
      fc.property(
        fc.array(fc.string({ unit: 'grapheme', minLength: 1, maxLength: 120 }), {
          minLength: 2,
          maxLength: 6,
        }),
        fc.integer({ min: 420, max: 1400 }),
        (names, width) => {
          const plot = plotOf(
            names.map((name, i) => series(`${i}`, [1, i], i % 2 ? '°C' : 'kW', name)),
            {},
            width,
          );
          for (const { text, line, box, level } of namePlaces(plot)) {
            const from = plot.plot.width + (level === 'clear' ? 7 : 22);
            const face = line === plot.subject ? 'strong' : 'medium';
            // One letter is always left.
            if ([...text].length > 2)
              expect(from + textWidth(text, face, 13)).toBeLessThanOrEqual(plot.rightAt + 7);
            expect(box.x + box.width).toBeLessThanOrEqual(plot.rightAt + 7);
          }
        },
      ),
    );
  });

  it('leave out what is empty on either axis, with the break beside that axis only', () => {
    const far = [1, 2, 3, 900, 950];
    const plot = plotOf(
      [
        series('a', [...far]),
        series(
          'b',
          far.map((v) => v * 7),
          '°C',
        ),
      ],
      { scale: BROKEN },
    );
    expect(plot.layout.axes.map(({ gap }) => gap !== null)).toEqual([true, true]);
    const breaks = marksOf(trendScene(plot).marks).filter(({ key }) => /^break \d$/.test(key));
    expect(breaks).toHaveLength(2);
    for (const each of breaks) expect(each.kind === 'rect' && each.width).toBeLessThan(30);
    const alone = marksOf(trendScene(plotOf([series('a', far)], { scale: BROKEN })).marks);
    const over = alone.find(({ key }) => key === 'break 0');
    expect(over?.kind === 'rect' && over.width).toBeGreaterThan(500);
  });

  it.each([
    ['columns', {}, 'columns are read by their height'],
    ['area', {}, 'areas are read by their height'],
    ['line', { ends: [0, 10] as const }, 'its ends are fixed'],
    ['line', { logarithmic: true }, 'it is logarithmic'],
    ['line', {}, 'no stretch between the values is empty'],
  ] as const)('say why a scale is not broken: %s %j', (mark, part, words) => {
    const { unbroken } = plotOf([series('a', [1, 2, 3])], { mark, scale: { ...BROKEN, ...part } }).layout;
    expect(unbroken).toContain(words);
  });

  it('say nothing of a break that nobody asked for', () => {
    const options = { ...PLAIN_TREND, window: { start: 0, end: 100 }, width: 100, height: 100 };
    expect(trendLayout([series('a', [1, 2])], options).unbroken).toBeNull();
  });
});
