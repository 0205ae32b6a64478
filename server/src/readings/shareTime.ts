import { elapsedSpans, lengthOfSpans, type Cell, type Spans } from '@vivid-beacon/core/src/aggregation';
import type { MetricRow } from '../metrics/sql';
import { inputsOf } from './derived';
import type { PlaceOf, SharedTime } from './metricReads';
import type { ReadContext } from './readContext';
import { sharedSpans, type TimeReads } from './sharedTime';

/**
 * The time of some periods in which all metrics of a cell have data, for every cell. An incomplete cell counts
 * nowhere, but its time counts as missing.
 */
export async function shareTime(
  context: ReadContext,
  cells: readonly Cell<MetricRow>[],
  placeOf: PlaceOf,
  periods: ReadonlySet<number>,
  reads: TimeReads,
): Promise<SharedTime> {
  const byId = new Map<string, Spans>();
  const elapsed: number[] = [];
  const shared: number[] = [];
  await Promise.all(
    cells.map(async ({ metrics, complete }) => {
      const places = new Set(metrics.map(placeOf));
      for (const place of places) {
        const counted = onlyPeriods(elapsedSpans(place.spans, context.now), periods);
        addLengths(elapsed, counted, place.size);
        if (!complete) continue;
        const members = metrics.filter((row) => placeOf(row) === place);
        // Days of different zones lie at different times: there is no time that they share.
        const spans =
          places.size > 1
            ? counted
            : await sharedSpans(context, await leavesOf(context, members), counted, reads);
        addLengths(shared, spans, place.size);
        for (const { id } of members) byId.set(id, spans);
      }
    }),
  );
  return {
    spansOf: ({ id }) => byId.get(id) ?? null,
    shares: elapsed.map((ms, i) => (ms > 0 ? (shared[i] ?? 0) / ms : 0)),
  };
}

function addLengths(total: number[], spans: Spans, size: number): void {
  lengthOfSpans(spans, size).forEach((ms, i) => (total[i] = (total[i] ?? 0) + ms));
}

function onlyPeriods({ start, end, into }: Spans, periods: ReadonlySet<number>): Spans {
  const kept = Array.from(into, (_, i) => i).filter((i) => periods.has(into[i]));
  return { start: kept.map((i) => start[i]), end: kept.map((i) => end[i]), into: kept.map((i) => into[i]) };
}

/** The metrics whose data say when others have values: derived metrics of totals stand for their inputs. */
async function leavesOf(context: ReadContext, rows: readonly MetricRow[]): Promise<MetricRow[]> {
  const leaves = await Promise.all(
    rows.map(async (row) => {
      const inputs = await inputsOf(context, row);
      return inputs === null ? [row] : leavesOf(context, inputs);
    }),
  );
  return [...new Map(leaves.flat().map((row) => [row.id, row])).values()];
}
