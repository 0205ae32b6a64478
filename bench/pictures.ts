/**
 * What a picture costs on the server: processor time from a scene to the bytes of its PNG, and from answers to its SVG.
 * Run: node --import tsx bench/pictures.ts
 */
import { emptyReadout } from '@vivid-beacon/core/src/boards';
import { DAY, gaugeScene, trendPlot, trendScene, PLAIN_TREND } from '@vivid-beacon/core/src/pictures';
import { pngOf } from '../server/src/pictures/pictureTask';
import { sceneToSvg } from '../server/src/pictures/sceneToSvg';
import { median, report } from './lib/measure';

const ROUNDS = 41;
const SCALE = 2;

/** Median processor time, ms; the first rounds warm up. */
function cpuOf(work: () => unknown): number {
  const all: number[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    const before = process.cpuUsage();
    work();
    const { user, system } = process.cpuUsage(before);
    if (round >= 5) all.push((user + system) / 1000);
  }
  return median(all);
}

const band = { direction: 'lower', caution: 60, breach: 80, target: 50 } as const;
const gauge = gaugeScene(
  {
    value: 42,
    level: 'clear',
    band,
    reference: 40,
    unit: 'kWh',
    decimals: 0,
    scale: emptyReadout('g', 'gauge').scale,
  },
  280,
);
const t = Array.from({ length: 4000 }, (_, i) => i * 60_000);
const answer = {
  window: { start: 0, end: 4000 * 60_000 },
  zone: 'Europe/London',
  unit: 'kWh',
  now: 5000 * 60_000,
  t,
  v: t.map((_, i) => 50 + 30 * Math.sin(i / 40)),
  bucket: null,
  until: null,
  gaps: [],
  samples: 4000,
};
const options = {
  ...PLAIN_TREND,
  series: [{ key: 'a', name: 'A', assetId: null, answer }],
  band,
  decimals: 0,
};
const drawTrend = (): string =>
  sceneToSvg(trendScene(trendPlot(options, 1200, 240)), { palette: DAY, withFonts: false });
const svg = sceneToSvg(gauge, { palette: DAY, withFonts: false });
const trendSvg = drawTrend();

report(
  'PNG of a gauge, ms of processor',
  cpuOf(() => pngOf(svg, SCALE)),
  50,
  `${gauge.width * SCALE} px wide`,
);
report(
  'PNG of a trend of 4,000 samples, ms of processor',
  cpuOf(() => pngOf(trendSvg, SCALE)),
  200,
  '2,400 px wide',
);
report(
  'SVG of the same trend from its answer, ms of processor',
  cpuOf(drawTrend),
  20,
  `${trendSvg.length} letters`,
);
