import { FLAG_STATUS_WORDS, type Flag, type FlagEvent } from '@vivid-beacon/core';
import { dueWords } from '../dueWords';
import { siteMoment } from '../siteMoment';

const EVENT_WORDS: Readonly<Record<FlagEvent['kind'], string>> = {
  handed: 'Handed out',
  inHand: 'Taken in hand',
  comment: 'Comment',
  handedOn: 'Handed on',
  closed: 'Closed',
  reopened: 'Opened again',
};

/** One line of a flag's history. */
export function flagEventWords(
  event: FlagEvent,
  zone: string,
  now: number,
): { title: string; detail: string } {
  return {
    title: `${EVENT_WORDS[event.kind]} by ${event.personName}`,
    detail: [siteMoment(event.at, zone, now), event.remark].filter(Boolean).join(' · '),
  };
}

/** Second line of a flag in a list: whose, how urgent, in hand or not, until when. */
export function flagRowWords(flag: Flag, me: string | undefined, now: number): string {
  const whose = flag.to.id === me ? 'You' : flag.to.name;
  if (flag.closedAt !== null) {
    return `${whose} · ${FLAG_STATUS_WORDS[flag.status]}, ${siteMoment(flag.closedAt, flag.zone, now)}`;
  }
  return [
    whose,
    flag.priority === 'normal' ? '' : `${flag.priority} priority`,
    flag.status === 'inHand' ? 'in hand' : '',
    dueWords(flag.dueAt, now, flag.zone).words,
  ]
    .filter(Boolean)
    .join(' · ');
}
