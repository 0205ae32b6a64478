import { flagStepsApi } from '@vivid-beacon/core/src/api/flags';
import { BeaconError, OUTCOME_WORDS, statusOfOutcome, type Flag, type FlagEvent } from '@vivid-beacon/core';
import { addEvent } from '../alarms/sql';
import { withTransaction, type Queryable } from '../db/database';
import { readAs } from '../db/reader';
import { endpoints, type Call } from '../http/endpoint';
import { notify } from '../live/notify';
import { enqueueFlagNotices } from './flagNotices';
import { checkTheirs, needFlag, needTaker } from './handing';
import { addFlagEvent, causeExists, closeFlag, handFlagOn, reopenFlag, takeFlag } from './sql';

interface Step {
  readonly kind: FlagEvent['kind'];
  readonly remark: string;
  /** Makes the change; false = the state of the flag no longer allows it, reported with `refusal`. */
  readonly change: (db: Queryable) => Promise<boolean>;
  readonly refusal: string;
}

/** One step of a flag's life with its line of history, together or not at all. */
async function step(
  { app, db, person }: Pick<Call, 'app' | 'db' | 'person'>,
  flag: Flag,
  { kind, remark, change, refusal }: Step,
): Promise<Flag> {
  await withTransaction(app.pool, async (own) => {
    if (!(await change(own))) throw new BeaconError('WRONG_STATE', refusal);
    await addFlagEvent(own, { flagId: flag.id, at: app.now(), kind, personId: person.id, remark });
    if (kind === 'closed' && flag.alarmId !== null) {
      await addEvent(own, {
        alarmId: flag.alarmId,
        at: app.now(),
        kind: 'flagClosed',
        personId: person.id,
        remark,
      });
      await notify(own, 'alarms', [flag.alarmId]);
    }
    if (kind === 'handedOn') {
      await enqueueFlagNotices(own, await needFlag(readAs(own, db.asker), flag.id), person.id, app.now());
    }
    await notify(own, 'flags', [flag.id]);
  });
  return needFlag(db, flag.id);
}

const CLOSED = 'This flag is closed already.';

export const flagFollowUpEndpoints = endpoints(flagStepsApi, {
  'POST /api/flags/:id/in-hand': async ({ app, db, params, person }) => {
    const flag = await needFlag(db, params.id);
    checkTheirs(flag, person, 'take');
    return step({ app, db, person }, flag, {
      kind: 'inHand',
      remark: '',
      change: (own) => takeFlag(own, flag.id),
      refusal: 'This flag is in hand or closed already.',
    });
  },

  'POST /api/flags/:id/comments': async ({ app, db, params, body, person }) => {
    const flag = await needFlag(db, params.id);
    return step({ app, db, person }, flag, {
      kind: 'comment',
      remark: body.remark,
      change: async () => true,
      refusal: '',
    });
  },

  'POST /api/flags/:id/taker': async ({ app, db, params, body, person }) => {
    const flag = await needFlag(db, params.id);
    checkTheirs(flag, person, 'hand on');
    const taker = await needTaker(app.pool, body.toPersonId, flag.plantId);
    return step({ app, db, person }, flag, {
      kind: 'handedOn',
      remark: [`to ${taker.name}`, body.remark].filter(Boolean).join('. '),
      change: (own) => handFlagOn(own, flag.id, taker.id),
      refusal: CLOSED,
    });
  },

  'POST /api/flags/:id/outcome': async ({ app, db, params, body, person }) => {
    const flag = await needFlag(db, params.id);
    checkTheirs(flag, person, 'close');
    if (body.causeId !== null && !(await causeExists(app.pool, body.causeId))) {
      throw new BeaconError('BAD_INPUT', 'This cause is not on the list.', 'causeId');
    }
    const { outcome } = body;
    return step({ app, db, person }, flag, {
      kind: 'closed',
      remark: body.note ? `${OUTCOME_WORDS[outcome]}. ${body.note}` : OUTCOME_WORDS[outcome],
      change: (own) =>
        closeFlag(own, flag.id, {
          ...body,
          outcome,
          status: statusOfOutcome(outcome),
          personId: person.id,
          at: app.now(),
        }),
      refusal: CLOSED,
    });
  },

  'DELETE /api/flags/:id/outcome': async ({ app, db, params, person }) => {
    const flag = await needFlag(db, params.id);
    checkTheirs(flag, person, 'open');
    return step({ app, db, person }, flag, {
      kind: 'reopened',
      remark: '',
      change: (own) => reopenFlag(own, flag.id),
      refusal: 'This flag is not closed.',
    });
  },
});
