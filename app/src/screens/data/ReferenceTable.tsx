import { useState } from 'react';
import { DateTime } from 'luxon';
import { StyleSheet, View } from 'react-native';
import {
  formatNumber,
  parseNumber,
  plusPeriods,
  recogniseDecimal,
  startOfPeriod,
  USUAL_RULES,
  type Metric,
} from '@vivid-beacon/core';
import { useCalendar, useReferenceValues } from '../../api/data';
import { useSaveReferenceValues } from '../../api/dataChanges';
import { Answer } from '../../components/Answer';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { Section } from '../../components/Section';
import { Words } from '../../components/Words';
import { useNow } from '../../hooks/useNow';
import { usePalette } from '../../theme/useTheme';

const SHOWN_PERIODS = 12;

/** Values of a reference series by period: typed in, or pasted from a sheet as two columns. */
export function ReferenceTable({ metric, mayEdit }: { readonly metric: Metric; readonly mayEdit: boolean }) {
  const palette = usePalette();
  const now = useNow();
  const values = useReferenceValues(metric.id, true);
  const rules = useCalendar(metric.plantId).data ?? USUAL_RULES;
  const save = useSaveReferenceValues();
  const [page, setPage] = useState(0);
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({});
  const [pasted, setPasted] = useState('');
  const period = metric.period ?? 'month';
  const first = plusPeriods(
    startOfPeriod(DateTime.fromMillis(now, { zone: metric.zone }), period, rules),
    page * SHOWN_PERIODS - 2,
    period,
  );
  const starts = Array.from({ length: SHOWN_PERIODS }, (_, i) => plusPeriods(first, i, period));
  const changes = Object.entries(typed).map(([start, text]) => ({
    start,
    value: text.trim() === '' ? null : readNumber(text),
  }));
  const wrong = changes.find(({ value }) => value !== null && Number.isNaN(value));
  const rows = readPasted(pasted);
  return (
    <Section title="Values" aside={`one for each ${period === 'financialYear' ? 'financial year' : period}`}>
      <Answer query={values} reading="Reading values">
        {(known) => {
          const byStart = new Map(known.map(({ start, value }) => [start, value]));
          return (
            <View style={styles.grid}>
              {starts.map((at) => {
                const start = at.toISODate()!;
                const value = byStart.get(start);
                const shown = typed[start] ?? (value === undefined ? '' : String(value));
                return (
                  <View key={start} style={styles.cell}>
                    {mayEdit ? (
                      <Field
                        label={labelOf(at, period)}
                        value={shown}
                        inputMode="decimal"
                        after={metric.unit}
                        onChange={(text) => setTyped({ ...typed, [start]: text })}
                      />
                    ) : (
                      <Words as="body">{`${labelOf(at, period)}: ${value === undefined ? 'none' : formatNumber(value, metric.decimals)}`}</Words>
                    )}
                  </View>
                );
              })}
            </View>
          );
        }}
      </Answer>
      <View style={styles.buttons}>
        <Button look="quiet" label="Earlier" onPress={() => setPage(page - 1)} />
        <Button look="quiet" label="Later" onPress={() => setPage(page + 1)} />
        {mayEdit && (
          <Button
            look="main"
            label={`Save ${changes.length} ${changes.length === 1 ? 'value' : 'values'}`}
            disabled={changes.length === 0 || wrong !== undefined || save.isPending}
            onPress={() => save.mutate({ id: metric.id, values: changes }, { onSuccess: () => setTyped({}) })}
          />
        )}
      </View>
      {mayEdit && (
        <>
          <Field
            label="Or paste two columns from a sheet: date and value"
            value={pasted}
            onChange={setPasted}
            multiline
          />
          {typeof rows === 'string' ? (
            <Words as="second" colour={palette.breachT}>
              {rows}
            </Words>
          ) : (
            rows.length > 0 && (
              <Button
                label={`Take ${rows.length} values`}
                onPress={() =>
                  save.mutate({ id: metric.id, values: rows }, { onSuccess: () => setPasted('') })
                }
              />
            )
          )}
        </>
      )}
      {(save.isError || wrong) && (
        <Words as="body" colour={palette.breachT}>
          {save.error?.message ?? `The value of ${wrong!.start} is not a number.`}
        </Words>
      )}
    </Section>
  );
}

function readNumber(text: string): number {
  return parseNumber(text, recogniseDecimal([text]));
}

/** Rows of "2026-01-01 <tab> 4200"; a text instead says which row is wrong. */
export function readPasted(text: string): readonly { start: string; value: number }[] | string {
  const rows: { start: string; value: number }[] = [];
  for (const [i, line] of text.split('\n').entries()) {
    if (line.trim() === '') continue;
    const [date, ...rest] = line.trim().split(/[\t;]|\s{2,}|\s(?=[\d+-][^-]*$)/);
    const start = DateTime.fromISO(date.length === 7 ? `${date}-01` : date);
    const value = readNumber(rest.join(''));
    if (!start.isValid) return `Row ${i + 1}: "${date}" is not a date such as 2026-01-01.`;
    if (Number.isNaN(value)) return `Row ${i + 1}: "${rest.join(' ')}" is not a number.`;
    rows.push({ start: start.toISODate(), value });
  }
  return rows;
}

function labelOf(at: DateTime, period: NonNullable<Metric['period']>): string {
  switch (period) {
    case 'day':
      return at.toFormat('ccc d LLL yyyy');
    case 'week':
      return `Week of ${at.toFormat('d LLL yyyy')}`;
    case 'month':
      return at.toFormat('LLL yyyy');
    case 'quarter':
      return `Q${at.quarter} ${at.year}`;
    case 'year':
      return String(at.year);
    case 'financialYear':
      return at.month === 1 ? `FY ${at.year}` : `FY ${at.year}/${String(at.year + 1).slice(2)}`;
  }
}

const styles = StyleSheet.create({
  grid: { flexDirection: 'row', flexWrap: 'wrap', gap: 10, paddingVertical: 6 },
  cell: { width: 160 },
  buttons: { flexDirection: 'row', flexWrap: 'wrap', gap: 10, paddingVertical: 6 },
});
