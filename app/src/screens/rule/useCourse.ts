import type { ScaleLinear } from 'd3-scale';
import { DAY_MS, type AlarmTest, type Interval, type ValueLimit } from '@vivid-beacon/core';
import { useTrend } from '../../api/queries';
import { knownExtent } from '@vivid-beacon/core/src/drawing/knownExtent';
import { valueDomain, valueScale } from '@vivid-beacon/core/src/drawing/trend/trendGeometry';
import { COURSE_HEIGHT, STRIPS } from './stripSizes';
import type { JudgedByRule } from './useJudged';

/** The samples a rule was rehearsed on, a few for each px, and the scale they are drawn on. */
export interface RuleCourse {
  readonly t: readonly number[];
  readonly v: readonly (number | null)[];
  readonly y: ScaleLinear<number, number>;
}

/** Reads the course of what is judged over the rehearsed window; null while it is not there, or where none is wanted. */
export function useCourse(
  judged: JudgedByRule | null,
  { start, end }: Interval,
  limits: readonly ValueLimit<AlarmTest>[],
  width: number,
): RuleCourse | null {
  const { data } = useTrend(
    judged && {
      measure: judged.measure,
      window: { kind: 'rolling', count: Math.max(1, Math.round((end - start) / DAY_MS)), unit: 'day' },
      bucket: judged.period,
      columns: Math.round(width) * STRIPS,
    },
  );
  if (!judged || !data || data.t.length === 0) return null;
  const ends = [...withRoom(data.v), ...limits.map(({ value }) => value)];
  return { t: data.t, v: data.v, y: valueScale(valueDomain(ends, null), COURSE_HEIGHT) };
}

/** Lowest and highest of the values with room for a limit beyond them, so that the scale rests while it is dragged. */
function withRoom(v: readonly (number | null)[]): number[] {
  const [low, high] = knownExtent(v);
  if (low === undefined) return [];
  const room = (high - low) / 4;
  return [low >= 0 ? Math.max(0, low - room) : low - room, high + room];
}
