import type { Board } from '@vivid-beacon/core';
import { useMetricsById } from '../../api/catalogue';
import { deviceZone } from '../deviceZone';

/** The zone a board's window is told in: that of its first metric. */
export function useBoardZone({ document }: Board): string {
  const first = document.readouts.find(({ measures }) => measures.length > 0)?.measures[0].metricId;
  const { byId } = useMetricsById([first]);
  return (first && byId.get(first)?.zone) || deviceZone();
}
