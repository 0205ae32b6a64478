import { askReading } from '../api/askTogether';
import { useMemo } from 'react';
import { useQuery } from '@tanstack/react-query';
import { periodOfLevels } from '@vivid-beacon/core';
import { useRemarks } from '../api/data';
import { useFlagsOnTime } from '../api/flags';
import { useAlarmsOnTime } from '../api/queries';
import type { TrendData } from '../boards/useTrendSeries';
import { flagMarks } from '../charts/flagMarks';
import { usePainted } from '../hooks/usePainted';

const NO_IDS: readonly string[] = [];

/** What lies along the time of a trend: breaches of its first line, remarks on its asset, alarms of its metrics. */
export function useTimeMarks({ series, shown, asked, aligned, metrics }: TrendData) {
  const { measures, band, groupBy, mark, cumulative, normalise } = asked;
  const { hours } = shown;
  // Counted from different dates, nothing along the time line belongs to all lines.
  const known = aligned ? undefined : series?.[0]?.answer.window;
  // The lines come first; what lies along their time is read once they are seen.
  const window = usePainted(known);
  const start = window?.start ?? 0;
  const end = window?.end ?? 1;
  const measure = measures[0];
  const asset = groupBy ? '' : (metrics.get(measure?.metricId ?? '')?.assetId ?? '');
  const remarks = useRemarks(window ? asset : '', start, end);
  const metricIds = useMemo(() => [...new Set(measures.map(({ metricId }) => metricId))], [measures]);
  const handed = useFlagsOnTime(groupBy || aligned ? NO_IDS : metricIds, window ?? null).data;
  const alarms = useAlarmsOnTime(aligned ? NO_IDS : metricIds, window ?? null).data;
  const flags = useMemo(() => flagMarks(handed ?? []), [handed]);
  const judged =
    band !== null && !groupBy && !cumulative && mark !== 'stacked' && normalise === null && !aligned;
  const spans = useQuery({
    queryKey: ['readings', 'levels', measure, band, start, end, hours],
    queryFn: ({ signal }) =>
      askReading(
        'levels',
        {
          measure,
          band: band!,
          start,
          end,
          bucket: periodOfLevels(end - start),
          hours,
        },
        signal,
      ),
    enabled: judged && window !== undefined && measure !== undefined,
    placeholderData: (before) => before,
  });
  const raised = useMemo(() => (alarms ?? []).map(({ raisedAt }) => raisedAt), [alarms]);
  return { remarks: remarks.data, spans: judged ? spans.data : undefined, alarms: raised, flags };
}
