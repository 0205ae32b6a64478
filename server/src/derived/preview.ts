import { DAY_MS, HOUR_MS, type DerivedDefinition, type ExpressionPreview } from '@vivid-beacon/core';
import { bucketSpans } from '@vivid-beacon/core/src/aggregation';
import { writeUnit } from '@vivid-beacon/core/src/units/unit';
import { bindExpression } from '../readings/bindExpression';
import { seriesOfExpression, totalsOf } from '../readings/derived';
import { METRIC_READS } from '../readings/planner';
import type { ReadContext } from '../readings/readContext';

const MAX_POINTS = 400;

/** The results of an expression over the last day: by the hour of totals, or sample by sample. */
export async function previewExpression(
  context: ReadContext,
  { definition, unit }: { readonly definition: DerivedDefinition; readonly unit: string },
): Promise<ExpressionPreview> {
  const bound = await bindExpression(context, definition, unit);
  const first = [...bound.names.values()].find((each) => each.kind === 'metrics');
  const row = first?.kind === 'metrics' ? first.rows[0] : null;
  const zone = row?.zone ?? 'UTC';
  const window = { start: context.now - DAY_MS, end: context.now };
  const shown = unit || writeUnit(bound.unit);
  const base = { unit: shown, foundUnit: writeUnit(bound.unit), zone, window };
  if (definition.way === 'totals') {
    const calendar = await context.reads.calendarOf(context.db, row?.plantId ?? '0');
    const byHour = bucketSpans(window, 'hour', null, zone, calendar);
    const whole = bucketSpans(window, null, null, zone, calendar);
    const values = await totalsOf(context, bound, byHour, METRIC_READS);
    const [total] = await totalsOf(context, bound, whole, METRIC_READS);
    return {
      ...base,
      t: byHour.start,
      v: values.map(({ value }) => value),
      value: total.value,
      coverage: total.coverage,
    };
  }
  const series = await seriesOfExpression(
    context,
    bound,
    { from: window.start, to: window.end, reachMs: HOUR_MS },
    METRIC_READS,
  );
  const from = series.t.findIndex((t) => t >= window.start);
  const t = from < 0 ? [] : Array.from(series.t.subarray(from));
  const v = from < 0 ? [] : Array.from(series.v.subarray(from));
  const step = Math.max(1, Math.ceil(t.length / MAX_POINTS));
  const keep = (_: unknown, i: number): boolean => i % step === 0 || i === t.length - 1;
  return { ...base, t: t.filter(keep), v: v.filter(keep), value: v.at(-1) ?? null, coverage: null };
}
