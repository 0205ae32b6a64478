import type { NoticeChannel, NoticeKind } from '@vivid-beacon/core';
import { sendAt, type NoticeText } from '@vivid-beacon/core/src/alarming';
import type { Queryable } from '../db/database';
import { notify } from '../live/notify';
import { addNotice, peopleWhoSee, recipientsOf, type Recipient } from './sql';

/** A notice before it is addressed to each recipient's channels. */
export interface NoticeDraft {
  /** Its subject; each person gets one notice per subject. */
  readonly about: string;
  readonly kind: NoticeKind;
  readonly urgent: boolean;
  readonly text: NoticeText;
  readonly address: string;
  readonly alarmId?: string;
  readonly flagId?: string;
  /** The plant it is about: who does not see it is not told. */
  readonly plantId: string;
}

/**
 * Puts notices into the outbox, in the caller's transaction: what is rolled back is never told. Each person gets
 * them as they wish; in their quiet hours only what is urgent comes at once.
 *
 * @returns names of those who are told now for the first time.
 */
export async function enqueueNotice(
  db: Queryable,
  personIds: readonly string[],
  telling: NoticeDraft,
  now: number,
): Promise<string[]> {
  if (personIds.length === 0) return [];
  const names: string[] = [];
  const seeing = await peopleWhoSee(db, personIds, telling.plantId);
  for (const person of await recipientsOf(db, [...seeing])) {
    let added = false;
    for (const channel of channelsOf(person)) {
      const id = await addNotice(db, {
        key: `${telling.about} to ${person.id} by ${channel}`,
        personId: person.id,
        channel,
        kind: telling.kind,
        urgent: telling.urgent,
        ...telling.text,
        address: telling.address,
        alarmId: telling.alarmId,
        flagId: telling.flagId,
        createdAt: now,
        dueAt: sendAt(now, person, telling.urgent),
      });
      added ||= id !== undefined;
    }
    if (added) names.push(person.name);
  }
  if (names.length > 0) await notify(db, 'notices', []);
  return names;
}

function channelsOf({ byEmail, byText }: Recipient): NoticeChannel[] {
  return [...(byEmail ? (['email'] as const) : []), ...(byText ? (['text'] as const) : [])];
}
