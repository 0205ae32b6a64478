import {
  ALARM_STATE_WORDS,
  formatLength,
  formatValue,
  LEVEL_WORDS,
  type Alarm,
  type AlarmEvent,
} from '@vivid-beacon/core';
import { siteMoment } from './siteMoment';

/** Where an alarm is, as far as the name of its rule does not say: "Washer line 1, Quayside". */
export function placeOfAlarm({
  ruleName,
  assetName,
  plantName,
}: Pick<Alarm, 'ruleName' | 'assetName' | 'plantName'>): string {
  const said = ruleName.toLowerCase().includes(assetName.toLowerCase()) || assetName === plantName;
  return said ? plantName : `${assetName}, ${plantName}`;
}

/** The state of an alarm in words: "Breach for 18 min, not acknowledged". */
export function alarmStateWords(alarm: Alarm, now: number): string {
  const lasted = formatLength((alarm.returnedAt ?? now) - alarm.raisedAt);
  const until =
    alarm.state === 'shelved' && alarm.shelvedUntil !== null
      ? ` until ${siteMoment(alarm.shelvedUntil, alarm.zone, now)}`
      : '';
  return `${LEVEL_WORDS[alarm.level]} for ${lasted}, ${ALARM_STATE_WORDS[alarm.state]}${until}`;
}

const EVENT_WORDS: Readonly<Record<AlarmEvent['kind'], string>> = {
  raised: 'Raised',
  returned: 'Back to normal',
  acknowledged: 'Acknowledged',
  reset: 'Reset',
  shelved: 'Shelved',
  outOfService: 'Taken out of service',
  suppressed: 'Suppressed by design',
  told: 'Escalated',
  putBack: 'Reinstated',
  remark: 'Remark',
  flagged: 'Flag handed out',
  flagClosed: 'Flag closed',
  ruleRetired: 'Rule withdrawn',
  recalculated: 'Recalculated',
};

/** One line of an alarm's history. */
export function eventWords(event: AlarmEvent, alarm: Alarm, now: number): { title: string; detail: string } {
  const value = event.value === null ? '' : ` at ${formatValue(event.value, alarm.unit, alarm.decimals)}`;
  return {
    title: `${EVENT_WORDS[event.kind]}${value}${event.personName ? ` by ${event.personName}` : ''}`,
    detail: [siteMoment(event.at, alarm.zone, now), event.remark].filter(Boolean).join(' · '),
  };
}
