import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { ScaleLinear } from 'd3-scale';
import { DAY_MS, type Interval, type RuleInput } from '@vivid-beacon/core';
import { knownExtent } from '@vivid-beacon/core/src/drawing/knownExtent';
import { valueDomain, valueScale } from '@vivid-beacon/core/src/drawing/trend/trendGeometry';
import { requestCourse } from '../../api/rehearsal';
import { asRehearsed } from './asRehearsed';
import { COURSE_HEIGHT, STRIPS } from './stripSizes';

/** What a rule compared with its limit, a few points for each px, and the scale it is drawn on. */
export interface RuleCourse {
  readonly t: readonly number[];
  readonly v: readonly (number | null)[];
  readonly unit: string;
  readonly decimals: number;
  readonly y: ScaleLinear<number, number>;
}

interface CourseAsk {
  readonly rule: RuleInput;
  /** One of the metrics that the rule watches. */
  readonly metricId: string;
  /** The rehearsed window. */
  readonly window: Interval;
  readonly width: number;
  readonly limits: readonly { readonly value: number }[];
}

/** Reads what a rule compared with its limit over the rehearsed window; null while it is not there, or where no limit is. */
export function useCourse({ rule, metricId, window, width, limits }: CourseAsk): RuleCourse | null {
  const ask = asRehearsed(rule)!;
  const days = Math.max(1, Math.round((window.end - window.start) / DAY_MS));
  const columns = Math.max(1, Math.round(width) * STRIPS);
  const { data } = useQuery({
    // The limits move on the course, not the course.
    queryKey: ['readings', 'rehearsed course', metricId, courseKey(ask), days, columns],
    queryFn: ({ signal }) => requestCourse(ask, { days, courseOf: metricId, columns }, signal),
    enabled: limits.length > 0 && width > 0,
    placeholderData: keepPreviousData,
    staleTime: 60_000,
  });
  if (limits.length === 0 || !data || data.t.length === 0) return null;
  const ends = [...withRoom(data.v), ...limits.map(({ value }) => value)];
  return { ...data, y: valueScale(valueDomain(ends, null), COURSE_HEIGHT) };
}

/** What of a rule its course depends on. */
const courseKey = ({ test, under, attributes, over, hours }: RuleInput): string =>
  JSON.stringify([{ ...test, limit: 0, deadband: 0, low: 0, high: 0 }, under, attributes, over, hours]);

/** Lowest and highest of the values with room for a limit beyond them, so that the scale rests while it is dragged. */
function withRoom(v: readonly (number | null)[]): number[] {
  const [low, high] = knownExtent(v);
  if (low === undefined) return [];
  const room = (high - low) / 4;
  return [low >= 0 ? Math.max(0, low - room) : low - room, high + room];
}
