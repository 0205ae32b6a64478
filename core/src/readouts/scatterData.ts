import { SEVERITY, type Level } from '../bands/targetBand';
import { besideGroups, groupsData, type GroupRow, type GroupsData } from './groupsData';
import type { WithMoreBands } from './moreBands';
import { isProblem, type Problem, type ReadingAnswers, type ReadoutInputs } from './readoutData';
import { isThin } from './stateWords';

/** The choices of a scatter besides those of every readout. */
export interface ScatterChoices extends WithMoreBands {
  readonly names: 'fit' | 'chosen';
}

/** A group by two of its values, and a third as its size. */
export interface ScatterPoint extends Pick<GroupRow, 'key' | 'name' | 'assetId' | 'values'> {
  readonly x: number;
  readonly y: number;
  /** Share of the largest size, 0 to 1; null without a third measure or where it is missing or below zero. */
  readonly size: number | null;
  /** The worse of its two levels; null without a target band. */
  readonly level: Level | null;
}

export interface ScatterData extends GroupsData<ScatterChoices> {
  readonly points: readonly ScatterPoint[];
  /** Names of groups that have only one of the two values, or none. */
  readonly leftOut: readonly string[];
}

export function scatterData(
  inputs: ReadoutInputs<ScatterChoices>,
  answers: ReadingAnswers,
): ScatterData | Problem {
  const { readout } = inputs;
  if (readout.groupBy === null || readout.measures.length < 2) return TOO_LITTLE;
  const data = groupsData(inputs, answers);
  if (isProblem(data)) return data;
  const sizes = data.groups.map(({ values }) => values[2]?.value ?? null);
  const largest = Math.max(0, ...sizes.filter((size) => size !== null));
  const points: ScatterPoint[] = [];
  const leftOut: string[] = [];
  data.groups.forEach((group, i) => {
    const [x, y] = group.values;
    if (x.value === null || y.value === null) {
      leftOut.push(group.name);
      return;
    }
    const size = sizes[i];
    points.push({
      ...group,
      x: x.value,
      y: y.value,
      size: size === null || size < 0 || largest === 0 ? null : size / largest,
      level: levelOfPoint(group, data.columns),
    });
  });
  return { ...data, points, leftOut };
}

/** Copies on the same axes, with sizes as shares of the largest of all. */
export function scattersAlike(all: readonly ScatterData[]): readonly ScatterData[] {
  const largestOf = ({ groups }: ScatterData): number =>
    Math.max(0, ...groups.map(({ values }) => values[2]?.value ?? 0));
  const most = Math.max(...all.map(largestOf));
  return besideGroups(all).map((data) => ({
    ...data,
    points: data.points.map((point) => ({
      ...point,
      size: point.size === null || most === 0 ? null : (point.size * largestOf(data)) / most,
    })),
  }));
}

const TOO_LITTLE: Problem = {
  problem: {
    title: 'A scatter needs two measures',
    text: 'Add another metric under "with", and group by asset or by what else is to be compared.',
  },
};

/** The worse of its levels; nothing is judged that has too little data. */
function levelOfPoint({ values }: GroupRow, columns: ScatterData['columns']): Level | null {
  const levels = values
    .slice(0, 2)
    .flatMap((value, i) => (columns[i].band ? [isThin(value) ? ('nodata' as const) : value.level] : []));
  return levels.length === 0 ? null : levels.reduce((a, b) => (SEVERITY[b] < SEVERITY[a] ? b : a));
}

/** How many points lie on each side of both targets: to the left and above, right above, left below, right below. */
export function quadrantsOf(
  points: readonly Pick<ScatterPoint, 'x' | 'y'>[],
  x: number,
  y: number,
): readonly [number, number, number, number] {
  const counts: [number, number, number, number] = [0, 0, 0, 0];
  for (const point of points) counts[(point.y >= y ? 0 : 2) + (point.x >= x ? 1 : 0)]++;
  return counts;
}
