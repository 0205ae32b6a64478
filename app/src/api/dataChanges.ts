import type {
  AssetInput,
  AssetImportRow,
  DerivedInput,
  Factor,
  Holiday,
  Intake,
  JobInput,
  MetricInput,
  ReferenceInput,
  RemarkInput,
  StatusKind,
  StopInput,
  WorkingCalendar,
} from '@vivid-beacon/core';
import { call, sendContent } from './client';
import { useChange } from './changes';

/* Mutations under Data, and the queries each one invalidates. */

/** What is saved: a new thing where there is no id yet. */
type Saved<Form> = Form & { readonly id: string | null };

export const useSaveAsset = () =>
  useChange(
    ({ id, ...body }: Saved<AssetInput>) =>
      id === null
        ? call('POST /api/assets', { body })
        : call('PUT /api/assets/:id', { params: { id }, body }),
    ['metrics', 'watch'],
  );

export const useRemoveAsset = () =>
  useChange((id: string) => call('DELETE /api/assets/:id', { params: { id } }), ['metrics', 'removals']);

export const useImportAssets = () =>
  useChange(
    (rows: readonly AssetImportRow[]) => call('POST /api/assets/list', { body: { rows } }),
    ['metrics'],
  );

export const useSaveMetric = () =>
  useChange(
    ({ id, assetId, ...metric }: Saved<MetricInput> & { readonly assetId: string }) =>
      id === null
        ? call('POST /api/metrics', { body: { assetId, ...metric } })
        : call('PUT /api/metrics/:id', { params: { id }, body: metric }),
    ['metrics', 'readings', 'watch'],
  );

export const useRemoveMetric = () =>
  useChange((id: string) => call('DELETE /api/metrics/:id', { params: { id } }), ['metrics', 'watch']);

export const useSaveDerived = () =>
  useChange(
    ({ id, ...body }: Saved<DerivedInput>) =>
      id === null
        ? call('POST /api/derived', { body })
        : call('PUT /api/derived/:id', { params: { id }, body }),
    ['metrics', 'readings'],
  );

export const useSaveFactor = () =>
  useChange(
    (factor: Saved<Omit<Factor, 'id'>>) => call('POST /api/factors', { body: factor }),
    ['metrics', 'readings'],
  );

export const useSaveCalendar = () =>
  useChange(
    ({ plantId, calendar }: { plantId: string; calendar: WorkingCalendar }) =>
      call('PUT /api/calendars/:id', { params: { id: plantId }, body: calendar }),
    ['readings', 'logs'],
  );

export const readIcalendar = (plantId: string, text: string): Promise<readonly Holiday[]> =>
  sendContent(
    'POST /api/calendars/:id/read',
    { params: { id: plantId } },
    { type: 'text/calendar', data: text },
  );

export const useSaveStop = () =>
  useChange(
    ({ id, ...body }: Saved<StopInput>) =>
      id === null ? call('POST /api/stops', { body }) : call('PUT /api/stops/:id', { params: { id }, body }),
    ['logs'],
  );

export const useRemoveStop = () =>
  useChange((id: string) => call('DELETE /api/stops/:id', { params: { id } }), ['logs']);

export const useImportStops = () =>
  useChange(
    (entries: readonly (StopInput & { readonly key: string | null })[]) =>
      call('POST /api/stops/list', { body: { entries } }),
    ['logs'],
  );

export const useSaveJob = () => useChange((job: JobInput) => call('POST /api/jobs', { body: job }), ['logs']);

export const useImportJobs = () =>
  useChange((jobs: readonly JobInput[]) => call('POST /api/jobs/list', { body: { jobs } }), ['logs']);

export const useAddStatus = () =>
  useChange(
    ({ id, ...body }: { id: string; at: number; status: string }) =>
      call('POST /api/jobs/:id/statuses', { params: { id }, body }),
    ['logs'],
  );

export const useSaveStatusKinds = () =>
  useChange(
    ({ assetId, kinds }: { assetId: string; kinds: readonly StatusKind[] }) =>
      call('PUT /api/desks/:id/statuses', { params: { id: assetId }, body: { kinds } }),
    ['logs'],
  );

export const useAddReference = () =>
  useChange((form: ReferenceInput) => call('POST /api/reference-series', { body: form }), ['metrics']);

export const useSaveReferenceValues = () =>
  useChange(
    ({ id, values }: { id: string; values: readonly { start: string; value: number | null }[] }) =>
      call('PUT /api/reference-series/:id/values', { params: { id }, body: { values } }),
    ['readings'],
  );

export const useAddStretchRemark = () =>
  useChange((form: RemarkInput) => call('POST /api/remarks', { body: form }), ['logs']);

export const useRemoveRemark = () =>
  useChange((id: string) => call('DELETE /api/remarks/:id', { params: { id } }), ['logs']);

export const useUndoIntake = () =>
  useChange(
    (id: Intake['id']) => call('POST /api/intakes/:id/undo', { params: { id } }),
    ['metrics', 'readings', 'watch', 'samplePage'],
  );
