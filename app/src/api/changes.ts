import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { RuleInput, SetAside } from '@vivid-beacon/core';
import { call } from './client';

/* Mutations, and the queries each one invalidates. */

export function useChange<Input, Output>(
  change: (input: Input) => Promise<Output>,
  topics: readonly string[],
) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSettled: () => Promise.all(topics.map((topic) => client.invalidateQueries({ queryKey: [topic] }))),
  });
}

export const useAcknowledge = () =>
  useChange(
    ({ id, remark }: { id: string; remark: string }) =>
      call('POST /api/alarms/:id/acknowledgement', { params: { id }, body: { remark } }),
    ['watch', 'alarms'],
  );

export const useResetAlarm = () =>
  useChange((id: string) => call('POST /api/alarms/:id/reset', { params: { id } }), ['watch', 'alarms']);

/** How many people answer alarms at the same time, for everybody. */
export const useKeepOperators = () =>
  useChange(
    (operators: number) => call('PUT /api/alarm-health/operators', { body: { operators } }),
    ['alarms'],
  );

export const useSetRuleAside = () =>
  useChange(
    ({
      id,
      ...body
    }: {
      id: string;
      /** Only on this metric of a rule over a scope; null = on all. */
      metricId: string | null;
      kind: SetAside;
      forMs: number | null;
      reason: string;
    }) => call('PUT /api/alarm-rules/:id/aside', { params: { id }, body }),
    ['watch', 'alarms'],
  );

export const usePutRuleBack = () =>
  useChange(
    ({ id, metricId }: { id: string; metricId: string | null }) =>
      call('DELETE /api/alarm-rules/:id/aside', { params: { id }, query: { metricId } }),
    ['watch', 'alarms'],
  );

export const useAddRemark = () =>
  useChange(
    ({ id, remark }: { id: string; remark: string }) =>
      call('POST /api/alarms/:id/remarks', { params: { id }, body: { remark } }),
    ['alarms'],
  );

export const usePutInForce = () =>
  useChange((rule: RuleInput) => call('POST /api/alarm-rules', { body: rule }), ['watch', 'alarms']);

export const useRetireRule = () =>
  useChange((id: string) => call('DELETE /api/alarm-rules/:id', { params: { id } }), ['alarms']);

export const useAddToken = () =>
  useChange(
    ({
      metricIds,
      ...form
    }: {
      readonly name: string;
      readonly plantId: string | null;
      /** null = every one. */
      readonly metricIds: readonly string[] | null;
      readonly endsAt: number | null;
    }) => call('POST /api/push-tokens', { body: { ...form, metricIds: metricIds && [...metricIds] } }),
    ['tokens'],
  );

export const useRevokeToken = () =>
  useChange((id: string) => call('DELETE /api/push-tokens/:id', { params: { id } }), ['tokens']);
