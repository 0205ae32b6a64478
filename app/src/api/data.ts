import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { decodeColumns, type DegreeDaysAsk, type ExpressionInput, type Holiday } from '@vivid-beacon/core';
import { call, readBytes } from './client';

/* Queries under Data. The first part of a query key is its topic. */

export const useCoverage = (id: string, days: number, on: boolean) =>
  useQuery({
    queryKey: ['readings', 'coverage', id, days],
    queryFn: () => call('GET /api/metrics/:id/coverage', { params: { id }, query: { days } }),
    enabled: on,
  });

/** A page of raw samples, columns of equal length. */
export interface SampleColumns {
  readonly total: number;
  readonly offset: number;
  readonly t: Float64Array;
  readonly v: Float64Array;
  readonly q: Float64Array;
}

export async function readSampleColumns(
  id: string,
  window: { readonly from: number; readonly to: number },
  offset: number,
  limit: number,
  signal?: AbortSignal,
): Promise<SampleColumns> {
  const ask = { params: { id }, query: { ...window, offset, limit } };
  const bytes = await readBytes('GET /api/metrics/:id/samples', ask, signal);
  const { head, columns } = decodeColumns<{ total: number; offset: number }>(bytes);
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
    queryFn: ({ signal }) =>
      readSampleColumns(metricId, window, page * SAMPLES_A_PAGE, SAMPLES_A_PAGE, signal),
    enabled: on,
    staleTime: 60_000,
    placeholderData: page === 0 ? keepPreviousData : undefined,
  });

export const useDegreeDays = (id: string, ask: DegreeDaysAsk, on: boolean) =>
  useQuery({
    queryKey: ['readings', 'degreeDays', id, ask],
    queryFn: () => call('POST /api/metrics/:id/degree-days', { params: { id }, body: ask }),
    enabled: on,
    placeholderData: keepPreviousData,
  });

export const useDerived = (id: string | null) =>
  useQuery({
    queryKey: ['metrics', 'derived', id],
    queryFn: () => call('GET /api/derived/:id', { params: { id: id! } }),
    enabled: id !== null,
  });

export const usePreview = (form: ExpressionInput, on: boolean) =>
  useQuery({
    queryKey: ['readings', 'preview', form],
    queryFn: ({ signal }) => call('POST /api/derived/preview', { body: form }, signal),
    enabled: on,
    placeholderData: keepPreviousData,
    retry: false,
  });

export const useFactors = () =>
  useQuery({ queryKey: ['metrics', 'factors'], queryFn: () => call('GET /api/factors') });

export const useCalendar = (plantId: string) =>
  useQuery({
    queryKey: ['readings', 'calendar', plantId],
    queryFn: () => call('GET /api/calendars/:id', { params: { id: plantId } }),
    enabled: plantId !== '',
  });

export const useCountries = () =>
  useQuery({
    queryKey: ['countries'],
    queryFn: () => call('GET /api/holidays/countries'),
    staleTime: Infinity,
  });

export const useRegions = (country: string | null) =>
  useQuery({
    queryKey: ['countries', country],
    queryFn: () => call('GET /api/holidays/countries', { query: { country: country! } }),
    enabled: country !== null,
    staleTime: Infinity,
  });

export const readHolidays = (
  country: string,
  region: string | null,
  from: number,
  to: number,
): Promise<readonly Holiday[]> =>
  call('GET /api/holidays', { query: { country, region: region ?? undefined, from, to } });

export const useStops = (assetId: string | null, from: number, to: number) =>
  useQuery({
    queryKey: ['logs', 'stops', assetId, from, to],
    queryFn: () => call('GET /api/stops', { query: { from, to, assetId: assetId ?? undefined } }),
    placeholderData: keepPreviousData,
  });

export const useReasons = (assetId: string | null) =>
  useQuery({
    queryKey: ['logs', 'reasons', assetId],
    queryFn: () => call('GET /api/stops/reasons', { query: { assetId: assetId ?? undefined } }),
  });

export const useJobs = (days: number) =>
  useQuery({
    queryKey: ['logs', 'jobs', days],
    queryFn: () => call('GET /api/jobs', { query: { days } }),
    placeholderData: keepPreviousData,
  });

export const useStatusKinds = (assetId: string | null) =>
  useQuery({
    queryKey: ['logs', 'statuses', assetId],
    queryFn: () => call('GET /api/desks/:id/statuses', { params: { id: assetId! } }),
    enabled: assetId !== null,
  });

export const useReferenceValues = (id: string, on: boolean) =>
  useQuery({
    queryKey: ['readings', 'reference', id],
    queryFn: () => call('GET /api/reference-series/:id/values', { params: { id } }),
    enabled: on,
  });

export const useRemarks = (assetId: string, from: number, to: number) =>
  useQuery({
    queryKey: ['logs', 'remarks', assetId, from, to],
    queryFn: () => call('GET /api/remarks', { query: { assetId, from, to } }),
    enabled: assetId !== '',
    placeholderData: keepPreviousData,
  });
