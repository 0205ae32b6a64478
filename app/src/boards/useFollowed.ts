import { useMemo } from 'react';
import { followIndicators, type IndicatorReading, type Readout } from '@vivid-beacon/core';
import { useIndicators } from '../api/indicators';

const NONE: readonly IndicatorReading[] = [];

/** Readouts as their indicators have them now; indicators are read only where there are any. */
export function useFollowed(readouts: readonly Readout[]): readonly Readout[] {
  const some = readouts.some(({ indicatorId }) => indicatorId !== null);
  const indicators = useIndicators(some).data ?? NONE;
  return useMemo(() => followIndicators(readouts, indicators), [readouts, indicators]);
}
