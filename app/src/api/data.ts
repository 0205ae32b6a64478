import { keepPreviousData, useQuery } from '@tanstack/react-query';
import {
  readColumns,
  type Binding,
  type DerivedWay,
  type Holiday,
  type JobEntry,
  type ReferenceValue,
  type StatusKind,
  type StopLog,
  type StretchRemark,
  type WorkingCalendar,
  type CoverageByDay,
  type DegreeDays,
  type DegreeDaysAsk,
  type ExpressionPreview,
} from '@vivid-beacon/core';
import { call, readBytes } from './client';

/* Questions about what is set up under Data. The first word of a key is its topic. */

export const useCoverage = (metricId: string, days: number, on: boolean) =>
  useQuery({
    queryKey: ['readings', 'coverage', metricId, days],
    queryFn: () => call<CoverageByDay>('GET', `/api/metrics/${metricId}/coverage?days=${days}`),
    enabled: on,
  });

/** A page of raw samples, columns of equal length. */
export interface SamplePage {
  readonly total: number;
  readonly offset: number;
  readonly t: Float64Array;
  readonly v: Float64Array;
  readonly q: Float64Array;
}

export async function readSamplePage(
  metricId: string,
  window: { readonly from: number; readonly to: number },
  offset: number,
  limit: number,
  signal?: AbortSignal,
): Promise<SamplePage> {
  const where = `from=${window.from}&to=${window.to}&offset=${offset}&limit=${limit}`;
  const bytes = await readBytes(`/api/metrics/${metricId}/samples?${where}`, signal);
  const { head, columns } = readColumns<{ total: number; offset: number }>(bytes);
  return {
    total: head.total,
    offset: head.offset,
    t: columns.get('t')!,
    v: columns.get('v')!,
    q: columns.get('q')!,
  };
}

export const SAMPLES_A_PAGE = 2000;

/** One page of samples by its number. */
export const useSamplePage = (
  metricId: string,
  window: { from: number; to: number },
  page: number,
  on: boolean,
) =>
  useQuery({
    queryKey: ['samplePage', metricId, window, page],
    queryFn: ({ signal }) => readSamplePage(metricId, window, page * SAMPLES_A_PAGE, SAMPLES_A_PAGE, signal),
    enabled: on,
    staleTime: 60_000,
    placeholderData: page === 0 ? keepPreviousData : undefined,
  });

export const useDegreeDays = (metricId: string, ask: DegreeDaysAsk, on: boolean) =>
  useQuery({
    queryKey: ['readings', 'degreeDays', metricId, ask],
    queryFn: () => call<DegreeDays>('POST', `/api/metrics/${metricId}/degree-days`, ask),
    enabled: on,
    placeholderData: keepPreviousData,
  });

export interface Derived {
  readonly metricId: string;
  readonly expression: string;
  readonly bindings: Readonly<Record<string, Binding>>;
  readonly way: DerivedWay;
}

export const useDerived = (metricId: string | null) =>
  useQuery({
    queryKey: ['metrics', 'derived', metricId],
    queryFn: () => call<Derived>('GET', `/api/derived/${metricId}`),
    enabled: metricId !== null,
  });

export interface ExpressionForm {
  readonly expression: string;
  readonly bindings: Readonly<Record<string, Binding>>;
  readonly way: DerivedWay;
  readonly unit: string;
}

export const usePreview = (form: ExpressionForm, on: boolean) =>
  useQuery({
    queryKey: ['readings', 'preview', form],
    queryFn: ({ signal }) => call<ExpressionPreview>('POST', '/api/derived/preview', form, signal),
    enabled: on,
    placeholderData: keepPreviousData,
    retry: false,
  });

export interface Factor {
  readonly id: string;
  readonly name: string;
  readonly unit: string;
  readonly source: string;
  readonly values: readonly { readonly from: string; readonly value: number }[];
}

export const useFactors = () =>
  useQuery({ queryKey: ['metrics', 'factors'], queryFn: () => call<Factor[]>('GET', '/api/factors') });

export const useCalendar = (plantId: string) =>
  useQuery({
    queryKey: ['readings', 'calendar', plantId],
    queryFn: () => call<WorkingCalendar>('GET', `/api/calendars/${plantId}`),
    enabled: plantId !== '',
  });

export const useCountries = () =>
  useQuery({
    queryKey: ['countries'],
    queryFn: () => call<{ code: string; name: string }[]>('GET', '/api/holidays/countries'),
    staleTime: Infinity,
  });

export const useRegions = (country: string | null) =>
  useQuery({
    queryKey: ['countries', country],
    queryFn: () =>
      call<{ code: string; name: string }[]>('GET', `/api/holidays/countries?country=${country}`),
    enabled: country !== null,
    staleTime: Infinity,
  });

export function readHolidays(
  country: string,
  region: string | null,
  from: number,
  to: number,
): Promise<Holiday[]> {
  const where = region ? `&region=${region}` : '';
  return call('GET', `/api/holidays?country=${country}${where}&from=${from}&to=${to}`);
}

export const useStops = (assetId: string | null, from: number, to: number) =>
  useQuery({
    queryKey: ['logs', 'stops', assetId, from, to],
    queryFn: () =>
      call<StopLog>('GET', `/api/stops?from=${from}&to=${to}${assetId ? `&assetId=${assetId}` : ''}`),
    placeholderData: keepPreviousData,
  });

export const useReasons = (assetId: string | null) =>
  useQuery({
    queryKey: ['logs', 'reasons', assetId],
    queryFn: () => call<string[]>('GET', `/api/stops/reasons${assetId ? `?assetId=${assetId}` : ''}`),
  });

export const useJobs = (days: number) =>
  useQuery({
    queryKey: ['logs', 'jobs', days],
    queryFn: () => call<JobEntry[]>('GET', `/api/jobs?days=${days}`),
    placeholderData: keepPreviousData,
  });

export const useStatusKinds = (assetId: string | null) =>
  useQuery({
    queryKey: ['logs', 'statuses', assetId],
    queryFn: () => call<StatusKind[]>('GET', `/api/desks/${assetId}/statuses`),
    enabled: assetId !== null,
  });

export const useReferenceValues = (metricId: string, on: boolean) =>
  useQuery({
    queryKey: ['readings', 'reference', metricId],
    queryFn: () => call<ReferenceValue[]>('GET', `/api/reference-series/${metricId}/values`),
    enabled: on,
  });

export const useRemarks = (assetId: string, from: number, to: number) =>
  useQuery({
    queryKey: ['logs', 'remarks', assetId, from, to],
    queryFn: () => call<StretchRemark[]>('GET', `/api/remarks?assetId=${assetId}&from=${from}&to=${to}`),
    enabled: assetId !== '',
    placeholderData: keepPreviousData,
  });
