import { labelPoints } from './labelPoints';
import { PlotNumber } from './PlotNumber';
import type { Scene, SceneSeries } from './trendScene';

interface PointLabelsProps {
  readonly scene: Scene;
  /** The subject first. */
  readonly series: readonly SceneSeries[];
  readonly decimals: number;
  readonly width: number;
  readonly height: number;
}

/** Values at the points of a trend's lines, as many as fit. */
export function PointLabels({ scene, series, decimals, width, height }: PointLabelsProps) {
  const lines = series.map(({ key, t, v, top, axis }) => ({
    key,
    points: t.flatMap((time, i) =>
      v[i] === null ? [] : [{ x: scene.x(time), y: scene.axes[axis].at(top[i]!), value: v[i] }],
    ),
  }));
  return labelPoints(lines, decimals, width, height).map(({ key, ...label }) => (
    <PlotNumber key={key} {...label} />
  ));
}
