import type { Readout } from './board';

/** The readouts of a board as one person sees them. */
export interface SeenReadouts {
  readonly shown: readonly Readout[];
  /** Left out, because they show a metric at a plant that the person may not see. */
  readonly leftOut: readonly Readout[];
}

/**
 * Parts the readouts that a person may see from the others. A readout is shown whole or not at all: with a measure missing its
 * total would be another one.
 *
 * @param unseen ids of metrics that are there, but not for this person.
 */
export function seenReadouts(readouts: readonly Readout[], unseen: readonly string[]): SeenReadouts {
  if (unseen.length === 0) return { shown: readouts, leftOut: [] };
  const ids = new Set(unseen);
  const isSeen = ({ measures }: Readout): boolean =>
    measures.every(({ metricId, per }) => !ids.has(metricId) && !(per && ids.has(per.metricId)));
  return { shown: readouts.filter(isSeen), leftOut: readouts.filter((each) => !isSeen(each)) };
}
