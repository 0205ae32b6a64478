import type {
  Asset,
  Holiday,
  Intake,
  JobEntry,
  Metric,
  MetricKind,
  ReferencePeriod,
  ReferenceValue,
  RemarkKind,
  StatusKind,
  StopEntry,
  WorkingCalendar,
} from '@vivid-beacon/core';
import { call, sendText } from './client';
import { useChange } from './changes';
import type { ExpressionForm, Factor } from './data';

/* Changes to what is set up under Data, and which answers they make old. */

export interface AssetChange {
  readonly name: string;
  readonly parentId: string | null;
  readonly kind: string;
  readonly zone: string | null;
  readonly attributes: Readonly<Record<string, string | number>>;
}

export const useSaveAsset = () =>
  useChange(
    ({ id, ...asset }: AssetChange & { id: string | null }) =>
      id === null
        ? call<Asset>('POST', '/api/assets', asset)
        : call<Asset>('PUT', `/api/assets/${id}`, asset),
    ['metrics', 'watch'],
  );

export const useRemoveAsset = () =>
  useChange((id: string) => call<void>('DELETE', `/api/assets/${id}`), ['metrics']);

export interface AssetRow {
  readonly line: number;
  readonly path: readonly string[];
  readonly kind: string;
  readonly zone: string | null;
  readonly attributes: Readonly<Record<string, string | number>>;
}

export interface AssetListAnswer {
  readonly added: number;
  readonly changed: number;
  readonly refused: readonly { readonly line: number; readonly reason: string }[];
}

export const useImportAssets = () =>
  useChange(
    (rows: readonly AssetRow[]) => call<AssetListAnswer>('POST', '/api/assets/list', { rows }),
    ['metrics'],
  );

export interface MetricChange {
  readonly name: string;
  readonly unit: string;
  readonly kind: MetricKind;
  readonly intervalMs: number;
  readonly maxGapMs: number | null;
  readonly rollover: number | null;
  readonly decimals: number;
  readonly plausibleLow: number | null;
  readonly plausibleHigh: number | null;
  readonly retentionDays: number | null;
}

export const useSaveMetric = () =>
  useChange(
    ({ id, assetId, ...metric }: MetricChange & { id: string | null; assetId: string }) =>
      id === null
        ? call<Metric>('POST', '/api/metrics', { assetId, ...metric })
        : call<Metric>('PUT', `/api/metrics/${id}`, metric),
    ['metrics', 'readings', 'watch'],
  );

export const useRemoveMetric = () =>
  useChange((id: string) => call<void>('DELETE', `/api/metrics/${id}`), ['metrics', 'watch']);

export interface DerivedForm extends ExpressionForm {
  readonly assetId: string;
  readonly name: string;
  readonly kind: 'level' | 'amount';
  readonly decimals: number;
}

export const useSaveDerived = () =>
  useChange(
    ({ id, ...form }: DerivedForm & { id: string | null }) =>
      id === null
        ? call<Metric>('POST', '/api/derived', form)
        : call<Metric>('PUT', `/api/derived/${id}`, form),
    ['metrics', 'readings'],
  );

export const useSaveFactor = () =>
  useChange(
    (factor: Omit<Factor, 'id'> & { id: string | null }) =>
      call<{ id: string }>('POST', '/api/factors', factor),
    ['metrics', 'readings'],
  );

export const useSaveCalendar = () =>
  useChange(
    ({ plantId, calendar }: { plantId: string; calendar: WorkingCalendar }) =>
      call<WorkingCalendar>('PUT', `/api/calendars/${plantId}`, calendar),
    ['readings', 'logs'],
  );

export const readIcalendar = (plantId: string, text: string) =>
  sendText<Holiday[]>(`/api/calendars/${plantId}/read`, 'text/calendar', text);

export interface StopForm {
  readonly assetId: string;
  readonly start: number;
  readonly end: number | null;
  readonly category: string;
  readonly reason: string;
  readonly note: string;
}

export const useSaveStop = () =>
  useChange(
    ({ id, ...stop }: StopForm & { id: string | null }) =>
      id === null
        ? call<StopEntry>('POST', '/api/stops', stop)
        : call<StopEntry>('PUT', `/api/stops/${id}`, stop),
    ['logs'],
  );

export const useRemoveStop = () =>
  useChange((id: string) => call<void>('DELETE', `/api/stops/${id}`), ['logs']);

export interface ListAnswer {
  readonly added: number;
  readonly changed: number;
  readonly refused: readonly { readonly index: number; readonly reason: string }[];
}

export const useImportStops = () =>
  useChange(
    (entries: readonly (StopForm & { key: string | null })[]) =>
      call<ListAnswer>('POST', '/api/stops/list', { entries }),
    ['logs'],
  );

export interface JobForm {
  readonly assetId: string;
  readonly number: string;
  readonly category: string;
  readonly customer: string;
  readonly owner: string;
  readonly fields: Readonly<Record<string, string | number>>;
  readonly history: readonly { readonly at: number; readonly status: string }[];
}

export const useSaveJob = () =>
  useChange((job: JobForm) => call<JobEntry>('POST', '/api/jobs', job), ['logs']);

export const useImportJobs = () =>
  useChange((jobs: readonly JobForm[]) => call<ListAnswer>('POST', '/api/jobs/list', { jobs }), ['logs']);

export const useAddStatus = () =>
  useChange(
    ({ id, ...status }: { id: string; at: number; status: string }) =>
      call<JobEntry>('POST', `/api/jobs/${id}/statuses`, status),
    ['logs'],
  );

export const useSaveStatusKinds = () =>
  useChange(
    ({ assetId, kinds }: { assetId: string; kinds: readonly StatusKind[] }) =>
      call<StatusKind[]>('PUT', `/api/desks/${assetId}/statuses`, { kinds }),
    ['logs'],
  );

export interface ReferenceForm {
  readonly assetId: string;
  readonly name: string;
  readonly unit: string;
  readonly kind: 'level' | 'amount';
  readonly period: ReferencePeriod;
  readonly decimals: number;
}

export const useAddReference = () =>
  useChange((form: ReferenceForm) => call<Metric>('POST', '/api/reference-series', form), ['metrics']);

export const useSaveReferenceValues = () =>
  useChange(
    ({ id, values }: { id: string; values: readonly { start: string; value: number | null }[] }) =>
      call<ReferenceValue[]>('PUT', `/api/reference-series/${id}/values`, { values }),
    ['readings'],
  );

export interface RemarkForm {
  readonly assetId: string;
  readonly start: number;
  readonly end: number;
  readonly kind: RemarkKind;
  readonly text: string;
}

export const useAddStretchRemark = () =>
  useChange((form: RemarkForm) => call<{ id: string }>('POST', '/api/remarks', form), ['logs']);

export const useRemoveRemark = () =>
  useChange((id: string) => call<void>('DELETE', `/api/remarks/${id}`), ['logs']);

export interface Undone {
  readonly removed: number;
  readonly restored: number;
  readonly kept: number;
}

export const useUndoIntake = () =>
  useChange(
    (id: Intake['id']) => call<Undone>('POST', `/api/intakes/${id}/undo`),
    ['metrics', 'readings', 'watch', 'samplePage'],
  );
