import {
  BeaconError,
  closeFlagSchema,
  flagCommentSchema,
  handOnSchema,
  OUTCOME_WORDS,
  statusOfOutcome,
  type Flag,
  type FlagEvent,
  type FlagOutcome,
  type Person,
} from '@vivid-beacon/core';
import { addEvent } from '../alarms/sql';
import { withTransaction, type Queryable } from '../db/database';
import type { AppContext } from '../http/appContext';
import { endpoint } from '../http/endpoint';
import { notify } from '../live/notify';
import { tellOfFlag } from '../notices/flagNotices';
import { checkTheirs, needFlag, needTaker } from './handing';
import { addFlagEvent, causeExists, closeFlag, findFlag, handFlagOn, reopenFlag, takeFlag } from './sql';

interface Step {
  readonly kind: FlagEvent['kind'];
  readonly remark: string;
  /** Makes the change; false = the flag is not in a state for it any more, which is told with `refusal`. */
  readonly change: (db: Queryable) => Promise<boolean>;
  readonly refusal: string;
}

/** One step of a flag's life with its line of history, together or not at all. */
async function step(app: AppContext, flag: Flag, person: Person, { kind, remark, change, refusal }: Step) {
  await withTransaction(app.pool, async (db) => {
    if (!(await change(db))) throw new BeaconError('WRONG_STATE', refusal);
    await addFlagEvent(db, { flagId: flag.id, at: app.now(), kind, personId: person.id, remark });
    if (kind === 'closed' && flag.alarmId !== null) {
      await addEvent(db, {
        alarmId: flag.alarmId,
        at: app.now(),
        kind: 'flagClosed',
        personId: person.id,
        remark,
      });
      await notify(db, 'alarms', [flag.alarmId]);
    }
    if (kind === 'handedOn') {
      await tellOfFlag(db, (await findFlag(db, flag.id))!, person.id, app.now());
    }
    await notify(db, 'flags', [flag.id]);
  });
  return findFlag(app.pool, flag.id);
}

const CLOSED = 'This flag is closed already.';

export const flagFollowUpEndpoints = [
  endpoint({
    method: 'post',
    path: '/api/flags/:id/in-hand',
    access: 'operator',
    summary: 'Takes an open flag in hand: its taker, its giver, or an analyst may.',
    answer: 'Flag. 409 WRONG_STATE when it is in hand or closed already.',
    handle: async ({ app, params, person }) => {
      const flag = await needFlag(app.pool, params.id);
      checkTheirs(flag, person, 'take');
      return step(app, flag, person, {
        kind: 'inHand',
        remark: '',
        change: (db) => takeFlag(db, flag.id),
        refusal: 'This flag is in hand or closed already.',
      });
    },
  }),
  endpoint({
    method: 'post',
    path: '/api/flags/:id/comments',
    access: 'operator',
    summary: 'Writes a comment under a flag.',
    answer: 'Flag.',
    body: flagCommentSchema,
    handle: async ({ app, params, body, person }) => {
      const flag = await needFlag(app.pool, params.id);
      return step(app, flag, person, {
        kind: 'comment',
        remark: body.remark,
        change: async () => true,
        refusal: '',
      });
    },
  }),
  endpoint({
    method: 'post',
    path: '/api/flags/:id/taker',
    access: 'operator',
    summary: 'Hands a flag on to another person: its taker, its giver, or an analyst may.',
    answer: 'Flag. 409 WRONG_STATE when it is closed.',
    body: handOnSchema,
    handle: async ({ app, params, body, person }) => {
      const flag = await needFlag(app.pool, params.id);
      checkTheirs(flag, person, 'hand on');
      const taker = await needTaker(app.pool, body.toPersonId);
      return step(app, flag, person, {
        kind: 'handedOn',
        remark: [`to ${taker.name}`, body.remark].filter(Boolean).join('. '),
        change: (db) => handFlagOn(db, flag.id, taker.id),
        refusal: CLOSED,
      });
    },
  }),
  endpoint({
    method: 'post',
    path: '/api/flags/:id/outcome',
    access: 'operator',
    summary: 'Closes a flag with outcome, cause and minutes spent: its taker, its giver, or an analyst may.',
    answer: 'Flag. 409 WRONG_STATE when it is closed already.',
    body: closeFlagSchema,
    handle: async ({ app, params, body, person }) => {
      const flag = await needFlag(app.pool, params.id);
      checkTheirs(flag, person, 'close');
      if (body.causeId !== null && !(await causeExists(app.pool, body.causeId))) {
        throw new BeaconError('BAD_INPUT', 'This cause is not on the list.', 'causeId');
      }
      const outcome = body.outcome as FlagOutcome;
      return step(app, flag, person, {
        kind: 'closed',
        remark: body.note ? `${OUTCOME_WORDS[outcome]}. ${body.note}` : OUTCOME_WORDS[outcome],
        change: (db) =>
          closeFlag(db, flag.id, {
            ...body,
            outcome,
            status: statusOfOutcome(outcome),
            personId: person.id,
            at: app.now(),
          }),
        refusal: CLOSED,
      });
    },
  }),
  endpoint({
    method: 'delete',
    path: '/api/flags/:id/outcome',
    access: 'operator',
    summary: 'Opens a closed flag again: its taker, its giver, or an analyst may.',
    answer: 'Flag. 409 WRONG_STATE when it is not closed.',
    handle: async ({ app, params, person }) => {
      const flag = await needFlag(app.pool, params.id);
      checkTheirs(flag, person, 'open');
      return step(app, flag, person, {
        kind: 'reopened',
        remark: '',
        change: (db) => reopenFlag(db, flag.id),
        refusal: 'This flag is not closed.',
      });
    },
  }),
];
