import { conditionWords } from '../alarms/conditionWords';
import type { Alarm, AlarmRule } from '../api/alarms';
import { formatLength, formatMoment, formatNumber, formatValue } from '../format/format';

/** What a notice says. */
export interface NoticeText {
  readonly subject: string;
  readonly body: string;
}

/** Placeholders in the message of a rule. */
export const MESSAGE_PARTS = ['asset', 'metric', 'value', 'limit', 'plant', 'time'] as const;

type Told = Pick<
  Alarm,
  | 'ruleName'
  | 'test'
  | 'over'
  | 'priority'
  | 'toDo'
  | 'metricName'
  | 'unit'
  | 'decimals'
  | 'assetName'
  | 'plantName'
  | 'zone'
  | 'raisedAt'
  | 'raisedValue'
  | 'returnedAt'
  | 'latestValue'
>;

const USUAL = '{asset}, {plant}: {metric} is {limit}. It was {value} at {time}.';

/** A message with its placeholders filled in; unknown ones stay as written. */
export function fillMessage(template: string, alarm: Told): string {
  const parts: Readonly<Record<(typeof MESSAGE_PARTS)[number], string>> = {
    asset: alarm.assetName,
    plant: alarm.plantName,
    metric: alarm.metricName,
    value: formatValue(alarm.raisedValue, alarm.unit, alarm.decimals),
    limit: conditionWords(alarm),
    time: formatMoment(alarm.raisedAt, alarm.zone),
  };
  return template.replace(/\{(\w+)\}/g, (whole, name: string) =>
    name in parts ? parts[name as 'asset'] : whole,
  );
}

/** That an alarm was raised. */
export function breachNotice(alarm: Told, { message }: Pick<AlarmRule, 'message'>): NoticeText {
  const lines = [fillMessage(message || USUAL, alarm)];
  if (alarm.toDo) lines.push(`What to do: ${alarm.toDo}`);
  if (alarm.returnedAt !== null)
    lines.push(`Back to normal at ${formatMoment(alarm.returnedAt, alarm.zone)}.`);
  lines.push(`${alarm.priority[0].toUpperCase()}${alarm.priority.slice(1)} priority.`);
  return { subject: alarm.ruleName, body: lines.join('\n') };
}

/** That an alarm is back to normal. */
export function returnNotice(alarm: Told): NoticeText {
  const lasted = formatLength((alarm.returnedAt ?? alarm.raisedAt) - alarm.raisedAt);
  return {
    subject: `Back to normal: ${alarm.ruleName}`,
    body: `${alarm.assetName}, ${alarm.plantName}: ${alarm.metricName} is back to normal after ${lasted}, at ${formatValue(alarm.latestValue, alarm.unit, alarm.decimals)}.`,
  };
}

/** That nobody has acknowledged an alarm in time. */
export function escalationNotice(alarm: Told, waitedMs: number): NoticeText {
  const { body } = breachNotice(alarm, { message: '' });
  return {
    subject: `Not acknowledged for ${formatLength(waitedMs)}: ${alarm.ruleName}`,
    body: `Nobody has acknowledged this alarm.\n${body}`,
  };
}

/** Several notices in one. @param subjects what each would have said, oldest first. */
export function digestNotice(subjects: readonly string[], since: number, zone: string): NoticeText {
  const counts = new Map<string, number>();
  for (const subject of subjects) counts.set(subject, (counts.get(subject) ?? 0) + 1);
  const lines = [...counts]
    .sort(([, a], [, b]) => b - a)
    .map(([subject, count]) => (count === 1 ? subject : `${subject} (${count} times)`));
  const shown = lines.slice(0, MAX_LINES);
  if (lines.length > shown.length) shown.push(`and ${lines.length - shown.length} more`);
  return {
    subject: `${formatNumber(subjects.length, 0)} notices since ${formatMoment(since, zone)}`,
    body: shown.join('\n'),
  };
}

const MAX_LINES = 20;
