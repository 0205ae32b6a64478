import { keepPreviousData, useQueries } from '@tanstack/react-query';
import { useMemo } from 'react';
import { MINUTE_MS, type Interval, type Metric, type Readout } from '@vivid-beacon/core';
import {
  type Problem,
  type ReadData,
  type ReadingAnswers,
  type ReadingRequest,
  type ReadoutFormOf,
  type ReadoutInputs,
  type ShownReadout,
  isOverTime,
} from '@vivid-beacon/core/src/boards';
import { useAssetsById } from '../api/catalogue';
import { askReading } from '../api/readingBatcher';
import { useKept } from '../hooks/useKept';
import { useNow } from '../hooks/useNow';
import { useStableList } from '../hooks/useStableList';
import { useShown } from './useShown';

/** The data of a readout, as far as loaded. */
export interface ReadoutAnswer<Data extends ReadData> {
  /** undefined = nothing loaded yet. */
  readonly data: Data | Problem | undefined;
  readonly error: Error | null;
  /** Whether this is the previous data, kept until the new data arrives. */
  readonly old: boolean;
  readonly again: () => void;
  readonly shown: ShownReadout<Readout>;
  readonly metrics: ReadonlyMap<string, Metric>;
}

const NO_ASKS: readonly ReadingRequest[] = [];

/** Readings, each read again once a minute. */
const useReadings = (asks: readonly ReadingRequest[]) =>
  useQueries({
    queries: asks.map(({ kind, ask }) => ({
      queryKey: ['readings', kind, ask],
      queryFn: ({ signal }: { signal: AbortSignal }) => askReading(kind, ask as never, signal),
      refetchInterval: MINUTE_MS,
      // Its stretches move with the minute; until the next are there, the last are as good.
      placeholderData: kind === 'notes' ? keepPreviousData : undefined,
      retry: false,
    })),
  });

/**
 * Loads the data of a readout: its form defines the requests and turns the answers into data.
 *
 * @param width of what is drawn, px. @param zoomed a stretch of its time that is looked at instead.
 */
export function useReadoutData<Data extends ReadData>(
  form: Pick<ReadoutFormOf<object, Data>, 'requests' | 'further' | 'facts' | 'data'>,
  readout: Readout,
  width: number,
  zoomed: Interval | null = null,
): ReadoutAnswer<Data> {
  const { shown, metrics, whole } = useShown(readout);
  const now = useNow(MINUTE_MS);
  // What is compared over time moves with the minute; nothing else asks what time it is.
  const minute =
    isOverTime(readout) && readout.compare !== 'none' ? Math.floor(now / MINUTE_MS) * MINUTE_MS : 0;
  const named = useMemo(() => form.facts({ readout: shown.readout, metrics }, []), [form, shown, metrics]);
  const ownFacts = useAssetsById(named);
  const inputs = useMemo(
    (): ReadoutInputs => ({ ...shown, metrics, facts: ownFacts.byId, view: { width, zoomed, now: minute } }),
    [shown, metrics, ownFacts.byId, width, zoomed, minute],
  );
  const ready = named.length === 0 || (whole && ownFacts.whole);
  const asks = useMemo(() => (ready ? form.requests(inputs) : null), [ready, form, inputs]);
  const results = useReadings(asks ?? NO_ASKS);
  const first = useStableList(results.map(({ data }) => data as ReadingAnswers[number]));
  const complete = asks !== null && asks.every(({ isExtra }, i) => isExtra || first[i] !== undefined);
  const further = useMemo(
    () => (complete ? form.further(inputs, first) : NO_ASKS),
    [complete, form, inputs, first],
  );
  const later = useReadings(further);
  const answers = useStableList([...first, ...later.map(({ data }) => data as ReadingAnswers[number])]);
  const more = useMemo(
    () => (complete ? form.facts({ readout: shown.readout, metrics }, answers) : named),
    [complete, form, shown, metrics, answers, named],
  );
  const facts = useAssetsById(more);
  const factsWhole = more.length === 0 || facts.whole;
  const data = useMemo(
    () => (complete && factsWhole ? form.data({ ...inputs, facts: facts.byId }, answers) : undefined),
    [complete, factsWhole, form, inputs, facts.byId, answers],
  );
  // Data of another form cannot be used.
  const kept = useKept(useMemo(() => data && { form, data }, [form, data]));
  const last = kept.value?.form === form ? kept.value.data : undefined;
  const failed = results.find(({ isError }, i) => isError && !asks?.[i].isExtra);
  return {
    data: last,
    error: failed?.error ?? null,
    old: kept.old && last !== undefined,
    again: () => void Promise.all([...results, ...later].map(({ refetch }) => refetch())),
    shown,
    metrics,
  };
}
