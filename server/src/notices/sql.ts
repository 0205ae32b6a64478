import {
  rolesFrom,
  type Notice,
  type NoticeChannel,
  type NoticeKind,
  type NoticeWish,
} from '@vivid-beacon/core';
import { moment, ms } from '../db/columns';
import { all, one, type Queryable } from '../db/database';

/** A recipient with their addresses and settings. */
export interface Recipient extends NoticeWish {
  readonly id: string;
  readonly name: string;
  readonly email: string;
}

const WISH = `coalesce(wish.by_email, true) as "byEmail", coalesce(wish.by_text, false) as "byText", wish.phone,
  case when wish.quiet_from is not null then jsonb_build_object('from', wish.quiet_from, 'to', wish.quiet_to) end as quiet,
  coalesce(wish.zone, (select zone from asset_place order by asset_id limit 1), 'UTC') as zone`;

/** How people want notices; by e-mail at any time where they have not said. */
export function recipientsOf(db: Queryable, ids: readonly string[]): Promise<Recipient[]> {
  return all(
    db,
    `select person.id, person.name, person.email, ${WISH}
     from person left join notice_wish wish on wish.person_id = person.id
     where person.id = any($1::bigint[]) order by person.id`,
    [ids],
  );
}

/** Those of these people who may be told of something at a plant: their accounts are not disabled, and they see it. */
export async function peopleWhoSee(
  db: Queryable,
  ids: readonly string[],
  plantId: string,
): Promise<Set<string>> {
  const rows = await all<{ id: string }>(
    db,
    `select person.id from person where person.id = any($1::bigint[]) and person.disabled_at is null
       and (person.role_everywhere = any($2::text[]) or exists (select 1 from person_site site
         where site.person_id = person.id and site.plant_id = $3::bigint and site.role = any($2::text[])))`,
    [ids, rolesFrom('viewer'), plantId],
  );
  return new Set(rows.map(({ id }) => id));
}

export async function writeWish(db: Queryable, personId: string, wish: NoticeWish): Promise<void> {
  await db.query(
    `insert into notice_wish (person_id, by_email, by_text, phone, quiet_from, quiet_to, zone)
     values ($1, $2, $3, $4, $5, $6, $7)
     on conflict (person_id) do update set by_email = excluded.by_email, by_text = excluded.by_text,
       phone = excluded.phone, quiet_from = excluded.quiet_from, quiet_to = excluded.quiet_to, zone = excluded.zone`,
    [
      personId,
      wish.byEmail,
      wish.byText,
      wish.phone,
      wish.quiet?.from ?? null,
      wish.quiet?.to ?? null,
      wish.zone,
    ],
  );
}

export interface NewNotice {
  readonly key: string;
  readonly personId: string;
  readonly channel: NoticeChannel;
  readonly kind: NoticeKind;
  readonly urgent: boolean;
  readonly subject: string;
  readonly body: string;
  readonly address: string;
  readonly alarmId?: string | null;
  readonly flagId?: string | null;
  readonly createdAt: number;
  readonly dueAt: number;
}

/** Adds a notice. @returns its id; undefined when the same has been told already. */
export async function addNotice(db: Queryable, notice: NewNotice): Promise<string | undefined> {
  const row = await one<{ id: string }>(
    db,
    `insert into notice (key, person_id, channel, kind, urgent, subject, body, address, alarm_id, flag_id, created_at, due_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12) on conflict (key) do nothing returning id`,
    [
      notice.key,
      notice.personId,
      notice.channel,
      notice.kind,
      notice.urgent,
      notice.subject,
      notice.body,
      notice.address,
      notice.alarmId ?? null,
      notice.flagId ?? null,
      moment(notice.createdAt),
      moment(notice.dueAt),
    ],
  );
  return row?.id;
}

const NOTICE = `select notice.id, person.name as "personName", notice.channel, notice.kind, notice.subject, notice.body,
    notice.address, ${ms('notice.created_at', 'createdAt')}, ${ms('notice.due_at', 'dueAt')},
    ${ms('notice.sent_at', 'sentAt')}, notice.sent_to as "sentTo", notice.attempts, notice.last_error as "lastError",
    notice.digest_id as "digestId", ${ms('caught.received_at', 'caughtAt')}
  from notice
  join person on person.id = notice.person_id
  left join caught_message caught on caught.message_id = 'notice-' || notice.id`;

/** The newest notices, of one person or of all (`personId` = null). */
export function listNotices(db: Queryable, personId: string | null, limit: number): Promise<Notice[]> {
  return all(
    db,
    `${NOTICE} where $1::bigint is null or notice.person_id = $1::bigint
     order by notice.created_at desc, notice.id desc limit $2`,
    [personId, limit],
  );
}

/**
 * Throws away what waits to be sent to a person who may not be told of it any more; digests not sent yet are made anew of what
 * is left. In the caller's transaction.
 */
export async function dropUnreachableNotices(db: Queryable, personId: string): Promise<void> {
  await db.query(
    `update notice set digest_id = null where digest_id in (
       select id from notice where person_id = $1 and kind = 'digest' and sent_at is null)`,
    [personId],
  );
  await db.query(`delete from notice where person_id = $1 and kind = 'digest' and sent_at is null`, [
    personId,
  ]);
  await db.query(
    `delete from notice where person_id = $1 and sent_at is null and not exists (
       select 1 from person
       where person.id = $1 and person.disabled_at is null and (person.role_everywhere is not null or exists (
         select 1 from person_site site join asset_place place on place.plant_id = site.plant_id
         where site.person_id = $1 and place.asset_id = coalesce(
           (select asset_id from flag where flag.id = notice.flag_id),
           (select metric.asset_id from alarm join metric on metric.id = alarm.metric_id where alarm.id = notice.alarm_id)))))`,
    [personId],
  );
}

/** People and channels for whom notices wait that are due, with how many they were sent since `lately`. */
export function waitingFor(
  db: Queryable,
  now: number,
  lately: number,
): Promise<{ personId: string; channel: NoticeChannel; sentLately: number }[]> {
  return all(
    db,
    `select waiting.person_id as "personId", waiting.channel,
            (select count(*)::int from notice sent where sent.person_id = waiting.person_id
               and sent.channel = waiting.channel and sent.sent_at > $2) as "sentLately"
     from notice waiting
     where waiting.sent_at is null and waiting.digest_id is null and waiting.due_at <= $1
     group by waiting.person_id, waiting.channel having count(*) > 1
     order by waiting.person_id, waiting.channel`,
    [moment(now), moment(lately)],
  );
}

/** One that waits to be sent. */
export interface Waiting {
  readonly id: string;
  readonly kind: NoticeKind;
  readonly urgent: boolean;
  readonly held: boolean;
  readonly subject: string;
  readonly createdAt: number;
}

/** Due notices of a person on a channel, oldest first, locked; those that another server sends are left to it. */
export function lockWaiting(
  db: Queryable,
  personId: string,
  channel: NoticeChannel,
  now: number,
): Promise<Waiting[]> {
  return all(
    db,
    `select id, kind, urgent, subject, ${ms('created_at', 'createdAt')}, due_at > created_at as held
     from notice where person_id = $1 and channel = $2 and sent_at is null and digest_id is null and due_at <= $3
       and attempts = 0
     order by created_at, id for update skip locked`,
    [personId, channel, moment(now)],
  );
}

export async function gatherInto(db: Queryable, digestId: string, ids: readonly string[]): Promise<void> {
  await db.query('update notice set digest_id = $1 where id = any($2::bigint[])', [digestId, ids]);
}

/** When the last digest to a person on a channel was sent or is to be; null = never. */
export async function lastDigest(
  db: Queryable,
  personId: string,
  channel: NoticeChannel,
): Promise<number | null> {
  const row = await one<{ at: number | null }>(
    db,
    `select ${ms('max(coalesce(sent_at, due_at))', 'at')} from notice
     where person_id = $1 and channel = $2 and kind = 'digest'`,
    [personId, channel],
  );
  return row!.at;
}

/** A notice on its way out. */
export interface Outgoing extends Recipient {
  readonly noticeId: string;
  readonly channel: NoticeChannel;
  readonly subject: string;
  readonly body: string;
  readonly address: string;
  readonly attempts: number;
}

/** The most urgent notice that is due, locked until the transaction ends: no other server sends it meanwhile. */
export function lockNextDue(db: Queryable, now: number): Promise<Outgoing | undefined> {
  return one(
    db,
    `select notice.id as "noticeId", notice.channel, notice.subject, notice.body, notice.address, notice.attempts,
            person.id, person.name, person.email, ${WISH}
     from notice join person on person.id = notice.person_id left join notice_wish wish on wish.person_id = person.id
     where notice.sent_at is null and notice.digest_id is null and notice.due_at <= $1
     order by notice.urgent desc, notice.due_at, notice.id limit 1 for update of notice skip locked`,
    [moment(now)],
  );
}

export async function markSent(db: Queryable, id: string, at: number, to: string): Promise<void> {
  await db.query(
    'update notice set sent_at = $2, sent_to = $3, attempts = attempts + 1, last_error = null where id = $1',
    [id, moment(at), to],
  );
}

export async function markFailed(
  db: Queryable,
  id: string,
  error: string,
  tryAgainAt: number,
): Promise<void> {
  await db.query('update notice set attempts = attempts + 1, last_error = $2, due_at = $3 where id = $1', [
    id,
    error,
    moment(tryAgainAt),
  ]);
}

/** Notes what a stand-in received; the same message again changes nothing. */
export async function addCaught(
  db: Queryable,
  message: {
    channel: NoticeChannel;
    messageId: string;
    sentTo: string;
    subject: string;
    body: string;
    at: number;
  },
): Promise<void> {
  await db.query(
    `insert into caught_message (channel, message_id, sent_to, subject, body, received_at)
     values ($1, $2, $3, $4, $5, $6) on conflict (message_id) do nothing`,
    [message.channel, message.messageId, message.sentTo, message.subject, message.body, moment(message.at)],
  );
}

/** Throws away notices written, and messages that stand-ins received, before these moments (ms). What waits stays. */
export async function dropOldNotices(db: Queryable, written: number, received: number): Promise<void> {
  await db.query(
    'delete from notice where created_at < $1 and (sent_at is not null or digest_id is not null)',
    [moment(written)],
  );
  await db.query('delete from caught_message where received_at < $1', [moment(received)]);
}
