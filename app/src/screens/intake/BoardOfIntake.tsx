import { useRouter } from 'expo-router';
import { DAY_MS, localWindow, type BoardDocument, type Intake, type Metric } from '@vivid-beacon/core';
import { startBoard } from '@vivid-beacon/core/src/boards';
import { useMetricsById } from '../../api/catalogue';
import { useSaveBoard } from '../../api/boards';
import { Button } from '../../components/Button';
import { Refusal } from '../../components/Refusal';

/** More metrics than this make no board that can be read: it is begun by hand. */
const MAX_METRICS = 12;
/** Of older data the last 30 days are shown. */
const SHOWN_DAYS = 30;
const RECENT_DAYS = 7;

/** Makes a board of what a file fed: a gauge or figure and a trend for each metric, over a window with data. */
export function BoardOfIntake({ intake, now }: { readonly intake: Intake; readonly now: number }) {
  const router = useRouter();
  const save = useSaveBoard();
  const { byId, whole } = useMetricsById(intake.metrics.map(({ metricId }) => metricId));
  const metrics = [...byId.values()];
  if (metrics.length === 0 || intake.metrics.length > MAX_METRICS) return null;
  return (
    <>
      <Button
        variant="primary"
        label="Make a board of it"
        disabled={!whole || save.isPending}
        onPress={() =>
          save.mutate(
            { id: null, title: titleOf(metrics), document: boardOf(metrics, now), revision: 0 },
            { onSuccess: ({ id }) => router.push(`/boards/${id}`) },
          )
        }
      />
      <Refusal of={save} />
    </>
  );
}

function titleOf(metrics: readonly Metric[]): string {
  const assets = [...new Set(metrics.map(({ assetName }) => assetName))];
  return assets.length === 1 ? assets[0] : `${assets[0]} and ${assets.length - 1} more`;
}

function boardOf(metrics: readonly Metric[], now: number): BoardDocument {
  const document = startBoard(metrics.map((metric) => ({ level: 0, metric, assetIds: [metric.assetId] })));
  const newest = Math.max(...metrics.map(({ last }) => last?.t ?? -Infinity));
  if (!Number.isFinite(newest) || newest > now - RECENT_DAYS * DAY_MS) return document;
  const window = { start: newest - SHOWN_DAYS * DAY_MS, end: newest + DAY_MS };
  return { ...document, window: localWindow(window, metrics[0].zone) };
}
