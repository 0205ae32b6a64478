import type { Href } from 'expo-router';
import { formatValue, type Need } from '@vivid-beacon/core';
import { placeOfAlarm } from '../alarmWords';

/** A need in words, and the place that it leads to. */
export function needWords(need: Need): { title: string; second: string; href: Href } {
  const why = need.why.join(', ');
  if (need.kind === 'alarm') {
    const { alarm } = need;
    const value = alarm.returnedAt === null ? alarm.latestValue : alarm.raisedValue;
    return {
      title: alarm.ruleName,
      second: `${why}. ${placeOfAlarm(alarm)}, ${formatValue(value, alarm.unit, alarm.decimals)}`,
      href: `/alarms/${alarm.id}`,
    };
  }
  if (need.kind === 'flag') {
    return {
      title: need.flag.title,
      second: `${why}. ${need.flag.place}`,
      href: `/flags/${need.flag.id}`,
    };
  }
  const { feed } = need;
  return {
    title: `${feed.assetName}, ${feed.name.toLowerCase()}`,
    second: `${why}. ${feed.plantName}`,
    href: `/data/metrics/${feed.id}` as Href,
  };
}
