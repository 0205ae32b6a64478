import { useMemo } from 'react';
import { useQuery } from '@tanstack/react-query';
import { trend, type TrendData } from '@vivid-beacon/core/src/boards';
import { flagMarks } from '@vivid-beacon/core/src/pictures';
import { askReading } from '../api/readingBatcher';
import { useRemarks } from '../api/data';
import { useFlagsOnTime } from '../api/flags';
import { useAlarmsOnTime } from '../api/queries';
import { usePainted } from '../hooks/usePainted';

const NO_IDS: readonly string[] = [];

/**
 * Marks along the time of a trend: breaches of its first line, remarks on its asset, alarms and flags of its
 * metrics.
 */
export function useTimeMarks(data: TrendData) {
  const now = useMemo(() => trend.along(data), [data]);
  // Lines load first; marks are loaded once the lines are painted.
  const asks = usePainted(now) ?? null;
  const window = asks?.window ?? null;
  const remarks = useRemarks(asks?.assetId ?? '', window?.start ?? 0, window?.end ?? 1);
  const handed = useFlagsOnTime(asks?.flags ?? NO_IDS, window).data;
  const raisings = useAlarmsOnTime(asks?.alarms ?? NO_IDS, window).data;
  const flags = useMemo(() => flagMarks(handed ?? []), [handed]);
  const alarms = useMemo(() => (raisings ?? []).map(({ raisedAt }) => raisedAt), [raisings]);
  const spans = useQuery({
    queryKey: ['readings', 'levels', asks?.levels],
    queryFn: ({ signal }) => askReading('levels', asks!.levels!, signal),
    enabled: asks !== null && asks.levels !== null,
    placeholderData: (before) => before,
  });
  const found = asks?.levels ? spans.data : undefined;
  return useMemo(
    () => ({ spans: found ?? [], remarks: remarks.data ?? [], alarms, flags }),
    [found, remarks.data, alarms, flags],
  );
}
