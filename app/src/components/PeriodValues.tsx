import { useState } from 'react';
import { DateTime } from 'luxon';
import { StyleSheet, View } from 'react-native';
import {
  formatNumber,
  plusPeriods,
  startOfPeriod,
  type PeriodRules,
  type ReferencePeriod,
  fieldText,
} from '@vivid-beacon/core';
import { readTyped } from './readTyped';
import { UnderstoodAs } from './UnderstoodAs';
import { useNow } from '../hooks/useNow';
import { usePalette } from '../theme/useTheme';
import { Button } from './Button';
import { Field } from './Field';
import { periodLabel } from './periodLabel';
import { readPasted } from './readPasted';
import { Words } from './Words';

const SHOWN_PERIODS = 12;

export interface PeriodValue {
  readonly start: string;
  readonly value: number;
}

export interface PeriodValuesProps {
  readonly values: readonly PeriodValue[];
  readonly period: ReferencePeriod;
  readonly zone: string;
  readonly rules: PeriodRules;
  readonly unit: string;
  readonly decimals: number;
  /** What is typed is in thousands or millions: by what a value is divided before it is shown. */
  readonly divisor?: number;
  readonly mayEdit: boolean;
  readonly saving: boolean;
  readonly error: Error | null;
  readonly onSave: (values: readonly { start: string; value: number | null }[], done: () => void) => void;
}

/** One value for each period, before and ahead: typed in, or pasted from a sheet as two columns. */
export function PeriodValues({
  values,
  period,
  zone,
  rules,
  unit,
  decimals,
  divisor = 1,
  mayEdit,
  saving,
  error,
  onSave,
}: PeriodValuesProps) {
  const palette = usePalette();
  const now = useNow();
  const [page, setPage] = useState(0);
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({});
  const [pasted, setPasted] = useState('');
  const current = startOfPeriod(now, period, zone, rules);
  const starts = Array.from({ length: SHOWN_PERIODS }, (_, i) =>
    DateTime.fromMillis(plusPeriods(current, page * SHOWN_PERIODS - 2 + i, period, zone), { zone }),
  );
  const changes = Object.entries(typed).map(([start, text]) => ({
    start,
    value: text.trim() === '' ? null : readNumber(text) * divisor,
  }));
  const wrong = changes.find(({ value }) => value !== null && Number.isNaN(value));
  const rows = readPasted(pasted);
  const byStart = new Map(values.map(({ start, value }) => [start, value / divisor]));
  return (
    <>
      <View style={styles.grid}>
        {starts.map((at) => {
          const start = at.toISODate()!;
          const value = byStart.get(start);
          const label = periodLabel(at, period, rules.financialYearMonth);
          return (
            <View key={start} style={styles.cell}>
              {mayEdit ? (
                <>
                  <Field
                    label={label}
                    value={typed[start] ?? (value === undefined ? '' : fieldText(value))}
                    inputMode="decimal"
                    after={unit}
                    onChange={(text) => setTyped({ ...typed, [start]: text })}
                  />
                  <UnderstoodAs
                    text={typed[start] ?? ''}
                    unit={unit}
                    onTake={(text) => setTyped({ ...typed, [start]: text })}
                  />
                </>
              ) : (
                <Words as="body">{`${label}: ${value === undefined ? 'none' : formatNumber(value, decimals)}`}</Words>
              )}
            </View>
          );
        })}
      </View>
      <View style={styles.buttons}>
        <Button variant="quiet" label="Earlier" onPress={() => setPage(page - 1)} />
        <Button variant="quiet" label="Later" onPress={() => setPage(page + 1)} />
        {mayEdit && (
          <Button
            variant="primary"
            label={`Save ${changes.length} ${changes.length === 1 ? 'value' : 'values'}`}
            disabled={changes.length === 0 || wrong !== undefined || saving}
            onPress={() => onSave(changes, () => setTyped({}))}
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
                  onSave(
                    rows.map(({ start, value }) => ({ start, value: value * divisor })),
                    () => setPasted(''),
                  )
                }
              />
            )
          )}
        </>
      )}
      {(error || wrong) && (
        <Words as="body" colour={palette.breachT}>
          {error?.message ?? `The value of ${wrong!.start} is not a number.`}
        </Words>
      )}
    </>
  );
}

const readNumber = (text: string): number => readTyped(text) ?? NaN;

const styles = StyleSheet.create({
  grid: { flexDirection: 'row', flexWrap: 'wrap', gap: 10, paddingVertical: 6 },
  cell: { width: 160 },
  buttons: { flexDirection: 'row', flexWrap: 'wrap', gap: 10, paddingVertical: 6 },
});
