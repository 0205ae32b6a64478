import { DateTime } from 'luxon';
import {
  formatMoment,
  formatNumber,
  LEVEL_WORDS,
  type IndicatorReading,
  type IndicatorPast,
  type JudgedPeriod,
} from '@vivid-beacon/core';
import { periodLabel } from '../../components/periodLabel';
import type { FlagSubject } from '../../flags/FlagForm';
import { shownValue } from './indicatorWords';

/** What a period of an indicator's past is called. */
export function periodName(
  { start }: JudgedPeriod,
  { bucket, zone, financialYearMonth }: IndicatorPast,
): string {
  if (bucket === 'hour') return formatMoment(start, zone);
  return periodLabel(DateTime.fromMillis(start, { zone }), bucket, financialYearMonth);
}

/** What a flag says that is handed out for one period, with its numbers as they are now. */
export function flagOfPeriod(indicator: IndicatorReading, period: JudgedPeriod, called: string): FlagSubject {
  const { id, name, assetName, definition, reading } = indicator;
  const value = (x: number | null): string => shownValue(x, reading.unit, definition);
  return {
    title: `Check ${name}, ${assetName}, ${called}`,
    kind: period.level === 'breach' ? 'breach' : 'loss',
    assetId: definition.assetId,
    metricId: definition.measure.metricId,
    alarmId: null,
    evidence: {
      title: `${name}, ${called}`,
      address: `/indicators/${id}`,
      window: { start: period.start, end: period.end },
      numbers: [
        { name: 'Value', text: value(period.value) },
        { name: 'Target', text: period.target === null ? 'none' : value(period.target) },
        { name: 'Level', text: LEVEL_WORDS[period.level] },
        { name: 'Coverage', text: `${formatNumber(period.coverage * 100, 0)} %` },
        { name: 'Judged by', text: `version ${period.version}` },
      ],
    },
  };
}
