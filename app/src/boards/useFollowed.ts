import { useMemo } from 'react';
import type { Readout } from '@vivid-beacon/core';
import { followIndicators } from '@vivid-beacon/core/src/boards';
import { useIndicatorsById } from '../api/indicators';

/** Readouts as their indicators have them now; only those indicators are read. */
export function useFollowed(readouts: readonly Readout[]): readonly Readout[] {
  const { byId } = useIndicatorsById(readouts.map(({ indicatorId }) => indicatorId));
  return useMemo(() => followIndicators(readouts, [...byId.values()]), [readouts, byId]);
}
