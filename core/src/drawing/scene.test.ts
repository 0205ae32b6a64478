import fc from 'fast-check';
import { LEVELS, type TargetBand } from '../bands/targetBand';
import {
  DEFAULT_ROUND_SCALE,
  DEFAULT_SCALE,
  DEFAULT_TREND_SCALE,
  type RoundScale,
} from '../board/scaleChoice';
import type { TrendAnswer } from '../api/readings';
import { TREND_MARKS } from '../readouts/trendChoices';
import { ringOf } from '../stats/shares';
import { gaugeScene } from './gaugeScene';
import { lampScene } from './lampScene';
import { ringScene } from './ringScene';
import { definitionsOf, hitAt, placed, type Mark, type Scene } from './scene';
import { straightScene } from './straightScene';
import { tankScene } from './tankScene';
import { linePath, linePathWithin } from './linePath';
import { PLAIN_TREND, trendPlot } from './trend/trendPlot';
import { trendScene } from './trend/trendScene';

const BAND: TargetBand = { direction: 'lower', caution: 30, breach: 60, target: 20 };
const level = fc.constantFrom(...LEVELS);
const value = fc.option(fc.double({ min: -1e6, max: 1e6, noNaN: true }), { nil: null });
const band = fc.option(fc.constant(BAND), { nil: null });

/** Every mark of a scene, those in groups too. */
const allMarks = (marks: readonly Mark[]): Mark[] =>
  marks.flatMap((mark) => [mark, ...(mark.kind === 'group' ? allMarks(mark.marks) : [])]);

/** Siblings have distinct keys, and nothing is drawn from NaN or an infinite number. */
function expectSound(scene: Scene): void {
  const walk = (marks: readonly Mark[]): void => {
    const keys = marks.map(({ key }) => key);
    expect(new Set(keys).size).toBe(keys.length);
    for (const mark of marks) if (mark.kind === 'group') walk(mark.marks);
  };
  walk(scene.marks);
  expect(JSON.stringify(scene.marks).match(/.{60}(NaN|Infinity|:null|undefined)/)).toBeNull();
}

const answerOf = (v: readonly (number | null)[], part: Partial<TrendAnswer> = {}): TrendAnswer => ({
  window: { start: 0, end: 1000 },
  zone: 'UTC',
  unit: 'kW',
  now: 2000,
  t: v.map((_, i) => i * 10),
  v,
  bucket: null,
  until: null,
  gaps: [{ start: 200, end: 400 }],
  samples: v.length,
  ...part,
});

const trendOf = (v: readonly (number | null)[], target: TargetBand | null = BAND) =>
  trendPlot(
    {
      series: [{ key: 'a', name: 'A', assetId: null, answer: answerOf(v) }],
      ...PLAIN_TREND,
      band: target,
      decimals: 0,
    },
    600,
    240,
  );

describe('scenes', () => {
  it('are sound for any value, level, band and size', () => {
    fc.assert(
      fc.property(value, level, band, fc.integer({ min: 80, max: 500 }), (v, l, b, width) => {
        const shown = { value: v, level: l, band: b, reference: 12, unit: 'kW', decimals: 1 };
        expectSound(gaugeScene({ ...shown, others: [{ mark: 'B', value: 3 }] }, width));
        expectSound(straightScene(shown, width));
        expectSound(tankScene({ ...shown, scale: DEFAULT_SCALE }));
        expectSound(lampScene(l, 22, 'notAcknowledged'));
      }),
    );
  });

  it('of trends are sound for any lines, with whatever lies along their time', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(value, { minLength: 1, maxLength: 30 }), { minLength: 1, maxLength: 4 }),
        fc.constantFrom(...TREND_MARKS),
        fc.boolean(),
        fc.boolean(),
        band,
        fc.constantFrom(390, 800),
        (lines, mark, cumulative, labelled, own, width) => {
          const plot = trendPlot(
            {
              series: lines.map((v, i) => ({
                key: `line ${i}`,
                name: `Line ${i}`,
                assetId: `${i}`,
                answer: answerOf(v, { unit: i === 1 ? 'kg' : 'kW' }),
              })),
              mark,
              cumulative,
              scale: DEFAULT_TREND_SCALE,
              band: own,
              secondBand: own,
              decimals: 1,
              labelled,
              focus: '1',
              chosen: null,
              reference: null,
              since: false,
              along: {
                spans: [{ start: 10, end: 50, level: 'breach' }],
                remarks: [{ start: 0, end: 20 }],
                alarms: [30, 5000],
                flags: [{ at: 40, open: true }],
              },
            },
            width,
            240,
          );
          expectSound(trendScene(plot));
          // In a stack the line in kg has no place.
          expect(plot.subject.assetId).toBe(lines.length > 1 && mark !== 'stacked' ? '1' : '0');
        },
      ),
    );
  });

  it('turn the beam to the value, and name the group that moves as a whole', () => {
    const turnedTo = (v: number): number => {
      const scene = gaugeScene(
        {
          value: v,
          level: 'clear',
          band: null,
          reference: null,
          unit: '',
          decimals: 0,
          scale: { ...DEFAULT_ROUND_SCALE, ends: [0, 100] },
        },
        200,
      );
      const beam = scene.marks.find(({ key }) => key === 'beam');
      return beam?.kind === 'group' ? beam.turned!.degrees : NaN;
    };
    expect([0, 50, 100, 250].map(turnedTo)).toEqual([-120, 0, 120, 120]);
    const names = allMarks(trendScene(trendOf([1, 2, 3])).marks).flatMap((mark) =>
      mark.kind === 'group' && mark.name ? [mark.name] : [],
    );
    expect(names).toEqual(['moves', 'ticks']);
  });

  it('draw the worse level fuller, so that colour is never alone', () => {
    const fills = (b: TargetBand): string[] =>
      straightScene({ value: null, level: 'nodata', band: b, reference: null, decimals: 0 }, 90).marks.map(
        (mark) => (mark.kind === 'path' || mark.kind === 'rect' ? String(mark.fill ?? mark.stroke) : ''),
      );
    expect(fills(BAND)).toEqual(['clear', 'water', 'caution', 'cautionW', 'breach']);
  });

  it('have each light, clip and the hatching once', () => {
    const { lights } = definitionsOf(
      gaugeScene({ value: 1, level: 'clear', band: null, reference: null, unit: '', decimals: 0 }, 200),
    );
    expect(lights).toHaveLength(1);
    const { clips, isHatched } = definitionsOf(trendScene(trendOf([10, 40, 70, 10])));
    expect(isHatched).toBe(true);
    // The plot, and the stretches in Caution and in Breach.
    expect(clips).toHaveLength(3);
  });
});

describe('the pieces of a line in a stretch of the plot', () => {
  it('are none where it does not go, and the whole where it never leaves', () => {
    const t = [0, 1, 2];
    const v = [10, 20, 10];
    const same = (x: number): number => x;
    expect(linePathWithin(t, v, same, same, 30, 40)).toBe('');
    expect(linePathWithin(t, v, same, same, 0, 40)).toBe(linePath(t, v, same, same));
  });

  it('hold every part that lies in it, for any line', () => {
    const px = fc.option(fc.integer({ min: 0, max: 100 }), { nil: null });
    fc.assert(
      fc.property(fc.array(px, { maxLength: 40 }), fc.integer({ min: 0, max: 90 }), (v, top) => {
        const bottom = top + 10;
        const t = v.map((_, i) => i);
        const drawn = linePathWithin(
          t,
          v,
          (x) => x,
          (y) => y,
          top,
          bottom,
        );
        const pieces = new Set<string>();
        for (const part of drawn.split('M').filter(Boolean)) {
          const points = part.split('L');
          for (let i = 1; i < points.length; i++) pieces.add(`${points[i - 1]} ${points[i]}`);
        }
        for (let i = 1; i < v.length; i++) {
          const [a, b] = [v[i - 1], v[i]];
          const enters = a !== null && b !== null && Math.max(a, b) >= top && Math.min(a, b) <= bottom;
          expect(pieces.has(`${i - 1} ${a} ${i} ${b}`)).toBe(enters);
        }
      }),
    );
  });
});

describe('what is pointed at', () => {
  const ring = ringOf([
    { key: 'a', name: 'A', value: 3 },
    { key: 'b', name: 'B', value: 1 },
  ])!;
  const scene = ringScene({ ring, focused: null, total: null }, 200);

  it('is the part of the ring at that angle, and nothing in the hole and beyond the rim', () => {
    expect(scene.hits.map(({ spoken }) => spoken)).toEqual(['A 75 %', 'B 25 %']);
    const at = (degrees: number, r: number): string | undefined => {
      const angle = (degrees * Math.PI) / 180;
      return hitAt(scene.hits, 100 + r * Math.sin(angle), 100 - r * Math.cos(angle))?.key;
    };
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 359.99, noNaN: true }), (degrees) => {
        expect(at(degrees, 80)).toBe(degrees < 270 ? 'a' : 'b');
        expect(at(degrees, 30)).toBeUndefined();
        expect(at(degrees, 99.5)).toBeUndefined();
      }),
    );
  });

  it('moves along with a scene that is put elsewhere', () => {
    const { hits } = placed(scene, 'left', 50, 10);
    expect(hitAt(hits, 150 + 80, 110)?.key).toBe('left a');
    expect(hitAt(hits, 150, 110)).toBeNull();
  });
});

describe('a gauge', () => {
  const shown = { value: 12, band: BAND, reference: null, unit: 'kW', decimals: 0 } as const;
  const drawn = (part: Partial<RoundScale>, level: 'clear' | 'nodata' = 'clear'): string[] =>
    allMarks(gaugeScene({ ...shown, level, scale: { ...DEFAULT_ROUND_SCALE, ...part } }, 260).marks).map(
      ({ key }) => key,
    );

  it('leaves out graduations and the numbers at them, each for itself', () => {
    expect(drawn({})).toEqual(expect.arrayContaining(['major', 'labels']));
    expect(drawn({ graduations: false })).not.toContain('major');
    expect(drawn({ graduations: false })).toContain('labels');
    expect(drawn({ labels: false })).not.toContain('labels');
  });

  it('points with a beam, a line or a mark on the ring, which every marker has', () => {
    const marks = (marker: RoundScale['marker']): string[] =>
      drawn({ marker }).filter((key) => ['narrow', 'line', 'mark'].includes(key));
    expect([marks('beam'), marks('line'), marks('mark')]).toEqual([
      ['narrow', 'mark'],
      ['line', 'mark'],
      ['mark'],
    ]);
  });

  it('shows a value that is not judged without light, and says No data only without one', () => {
    expect(drawn({}, 'nodata')).toEqual(expect.arrayContaining(['value', 'mark']));
    expect(drawn({}, 'nodata')).not.toContain('narrow');
    const spoken = (value: number | null, level: 'clear' | 'nodata', own: TargetBand | null): string =>
      gaugeScene({ ...shown, value, level, band: own }, 260).spoken;
    expect([spoken(12, 'nodata', BAND), spoken(null, 'nodata', BAND), spoken(12, 'clear', null)]).toEqual([
      '12 kW, not judged',
      'No data',
      '12 kW',
    ]);
  });
});
