import type { Board } from '@vivid-beacon/core';
import { useMetrics } from '../../api/queries';

/** The zone a board's window is told in: that of its first metric. */
export function useBoardZone({ document }: Board): string {
  const metrics = useMetrics().data;
  const first = document.readouts.find(({ measures }) => measures.length > 0)?.measures[0].metricId;
  return metrics?.find(({ id }) => id === first)?.zone ?? Intl.DateTimeFormat().resolvedOptions().timeZone;
}
