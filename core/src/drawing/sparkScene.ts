import type { TrendAnswer } from '../api/readings';
import type { Scene } from './scene';
import { linePath } from './linePath';
import { drawnPart, timeScale, valueDomain, valueScale } from './trend/trendGeometry';

/** A small trend without axes, beside a figure; its last, unfinished period is left out. */
export function sparkScene(answer: TrendAnswer, width: number, height: number): Scene {
  const { t, v } = drawnPart(answer, false);
  const x = timeScale(answer.window, width);
  const y = valueScale(valueDomain(v, null), height - 4);
  const d = linePath(t, v, x, (value) => y(value) + 2);
  return {
    width,
    height,
    marks: [{ kind: 'path', key: 'line', d, stroke: 'ink', strokeWidth: 1.5, round: true }],
    hits: [],
    spoken: '',
  };
}
