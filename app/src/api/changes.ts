import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { AlarmRule, Board, BoardDocument, SetAside } from '@vivid-beacon/core';
import { call } from './client';

/* Every change a person can make, and which answers it makes old. */

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
      call<void>('POST', `/api/alarms/${id}/acknowledgement`, { remark }),
    ['watch', 'alarms'],
  );

export const useResetAlarm = () =>
  useChange((id: string) => call<void>('POST', `/api/alarms/${id}/reset`), ['watch', 'alarms']);

/** How many people answer alarms at the same time, for everybody. */
export const useKeepOperators = () =>
  useChange(
    (operators: number) => call<void>('PUT', '/api/alarm-health/operators', { operators }),
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
    }) => call<void>('PUT', `/api/alarm-rules/${id}/aside`, body),
    ['watch', 'alarms'],
  );

export const usePutRuleBack = () =>
  useChange(
    ({ id, metricId }: { id: string; metricId: string | null }) =>
      call<void>('DELETE', `/api/alarm-rules/${id}/aside${metricId === null ? '' : `?metricId=${metricId}`}`),
    ['watch', 'alarms'],
  );

export const useAddRemark = () =>
  useChange(
    ({ id, remark }: { id: string; remark: string }) =>
      call<void>('POST', `/api/alarms/${id}/remarks`, { remark }),
    ['alarms'],
  );

export type RuleForm = Omit<AlarmRule, 'id' | 'inForce' | 'inForceFrom' | 'watches'> & {
  /** The rule whose place it takes. */
  readonly replaces?: string | null;
};

export const usePutInForce = () =>
  useChange((rule: RuleForm) => call<{ id: string }>('POST', '/api/alarm-rules', rule), ['watch', 'alarms']);

export const useRetireRule = () =>
  useChange((id: string) => call<void>('DELETE', `/api/alarm-rules/${id}`), ['alarms']);

export interface BoardForm {
  /** null = a new board. */
  readonly id: string | null;
  readonly title: string;
  readonly document: BoardDocument;
  readonly revision: number;
}

/** Sends only what a person can change: a board as it was read says more of itself. */
function saveBoard({ id, title, document, revision }: BoardForm): Promise<Board> {
  return id === null
    ? call<Board>('POST', '/api/boards', { title, document })
    : call<Board>('PUT', `/api/boards/${id}`, { title, document, revision });
}

export const useSaveBoard = () => useChange(saveBoard, ['boards']);

export const useRemoveBoard = () =>
  useChange((id: string) => call<void>('DELETE', `/api/boards/${id}`), ['boards']);

export const useAddToken = () =>
  useChange(
    (form: { name: string }) => call<{ id: string; token: string }>('POST', '/api/push-tokens', form),
    ['tokens'],
  );

export const useRevokeToken = () =>
  useChange((id: string) => call<void>('DELETE', `/api/push-tokens/${id}`), ['tokens']);
