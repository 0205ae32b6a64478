import { needsAcknowledgement } from '../alarms/lifecycle';
import type { Flag } from '../domain/flags';
import { LEVEL_WORDS } from '../bands/targetBand';
import type { Alarm } from '../api/alarms';
import type { Metric } from '../api/metrics';
import type { Watch } from '../api/watch';
import { formatLength, formatNumber } from '../format/format';
import { HOUR_MS } from '../time/lengths';

/** Something that needs a person now, why, and how urgent it is against the others. */
export type Need = {
  /** Larger first. */
  readonly rank: number;
  readonly plantId: string;
  /** "High priority", "not acknowledged for 18 min", …: the weightiest first. */
  readonly why: readonly string[];
} & (
  | { readonly kind: 'alarm'; readonly alarm: Alarm }
  | { readonly kind: 'flag'; readonly flag: Flag }
  | { readonly kind: 'feed'; readonly feed: Metric }
);

/*
 * Weights: consequence first (priority, then level), then what has gone unanswered, then how long. None of the
 * lower ones together outweighs the next priority. Common practice, no source.
 */
const PRIORITY = { high: 300, medium: 200, low: 100 } as const;
const FLAG_PRIORITY = { high: 260, normal: 160, low: 60 } as const;
const BREACH = 40;
const ESCALATED = 25;
const STANDS = 15;
/** An hour that something waits adds one, up to this. */
const MAX_HOURS = 15;
const BLIND = 130;
const BLIND_RULE = 5;
const RESET = 50;

const hours = (ms: number): number => Math.min(MAX_HOURS, Math.max(0, ms) / HOUR_MS);

/** Everything that needs a person now, the most urgent and weighty first. The same input gives the same order. */
export function needsOf(watch: Pick<Watch, 'now' | 'alarms' | 'flags' | 'silent' | 'rulesOn'>): Need[] {
  const { now } = watch;
  const needs: Need[] = [];
  for (const alarm of watch.alarms) {
    const need = alarmNeed(alarm, now);
    if (need) needs.push(need);
  }
  for (const flag of watch.flags) if (flag.dueAt < now) needs.push(flagNeed(flag, now));
  for (const feed of watch.silent.feeds) {
    const rules = watch.rulesOn[feed.id] ?? 0;
    if (rules > 0) needs.push(feedNeed(feed, rules));
  }
  return needs.sort((a, b) => b.rank - a.rank || keyOf(a).localeCompare(keyOf(b), 'en', { numeric: true }));
}

/** Names a need among the others. */
export function keyOf(need: Need): string {
  if (need.kind === 'alarm') return `alarm ${need.alarm.id}`;
  return need.kind === 'flag' ? `flag ${need.flag.id}` : `feed ${need.feed.id}`;
}

const capital = (word: string): string => word[0].toUpperCase() + word.slice(1);

function alarmNeed(alarm: Alarm, now: number): Need | null {
  const { plantId, state, level } = alarm;
  if (state === 'latchedAcknowledged') {
    const why = ['Clear again', 'latched: waits for a reset'];
    return { kind: 'alarm', alarm, plantId, why, rank: RESET + PRIORITY[alarm.priority] / 10 };
  }
  if (!needsAcknowledgement(state)) return null;
  const stands = alarm.returnedAt === null;
  const waited = now - alarm.raisedAt;
  const why = [`${capital(alarm.priority)} priority`];
  if (stands) why.push(`${LEVEL_WORDS[level]} for ${formatLength(waited)}`);
  else why.push(`clear again after ${formatLength(alarm.returnedAt - alarm.raisedAt)}`);
  why.push(alarm.escalatedAt === null ? 'not acknowledged' : 'others were told: nobody acknowledged');
  const rank =
    PRIORITY[alarm.priority] +
    (level === 'breach' ? BREACH : 0) +
    (alarm.escalatedAt === null ? 0 : ESCALATED) +
    (stands ? STANDS : 0) +
    hours(waited);
  return { kind: 'alarm', alarm, plantId, why, rank };
}

function flagNeed(flag: Flag, now: number): Need {
  const late = now - flag.dueAt;
  const why = [`${formatLength(late)} late`, `with ${flag.to.name}`];
  if (flag.priority !== 'normal') why.unshift(`${capital(flag.priority)} priority`);
  return { kind: 'flag', flag, plantId: flag.plantId, why, rank: FLAG_PRIORITY[flag.priority] + hours(late) };
}

function feedNeed(feed: Metric, rules: number): Need {
  const quiet = feed.health.quietMs ?? 0;
  const why = [
    `Silent for ${formatLength(quiet)}`,
    rules === 1 ? 'an alarm rule sees nothing' : `${formatNumber(rules, 0)} alarm rules see nothing`,
  ];
  const rank = BLIND + Math.min(4, rules - 1) * BLIND_RULE + hours(quiet);
  return { kind: 'feed', feed, plantId: feed.plantId, why, rank };
}
