import { conditionWords, formatValue, type Alarm, type FlagEvidence } from '@vivid-beacon/core';

/** What an alarm shows now, kept with a flag that is handed out for it. */
export function evidenceOfAlarm(alarm: Alarm, now: number): FlagEvidence {
  const { unit, decimals } = alarm;
  return {
    title: `${alarm.ruleName}, ${alarm.metricName}`,
    address: `/alarms/${alarm.id}`,
    window: { start: alarm.raisedAt, end: Math.max(alarm.returnedAt ?? now, alarm.raisedAt + 1) },
    numbers: [
      { name: 'When raised', text: formatValue(alarm.raisedValue, unit, decimals) },
      { name: 'Looked for', text: conditionWords(alarm) },
      { name: 'Latest', text: formatValue(alarm.latestValue, unit, decimals) },
    ],
  };
}
