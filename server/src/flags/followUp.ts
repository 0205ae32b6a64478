import { flagStepsApi } from '@vivid-beacon/core/src/api/flags';
import {
  BeaconError,
  OUTCOME_WORDS,
  statusOfOutcome,
  type Flag,
  type FlagEvent,
  type Person,
} from '@vivid-beacon/core';
import { addEvent } from '../alarms/sql';
import { withTransaction, type Queryable } from '../db/database';
import type { AppContext } from '../http/appContext';
import { endpoints } from '../http/endpoint';
import { notify } from '../live/notify';
import { tellOfFlag } from './flagNotices';
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
  return (await findFlag(app.pool, flag.id))!;
}

const CLOSED = 'This flag is closed already.';

export const flagFollowUpEndpoints = endpoints(flagStepsApi, {
  'POST /api/flags/:id/in-hand': async ({ app, params, person }) => {
    const flag = await needFlag(app.pool, params.id);
    checkTheirs(flag, person, 'take');
    return step(app, flag, person, {
      kind: 'inHand',
      remark: '',
      change: (db) => takeFlag(db, flag.id),
      refusal: 'This flag is in hand or closed already.',
    });
  },

  'POST /api/flags/:id/comments': async ({ app, params, body, person }) => {
    const flag = await needFlag(app.pool, params.id);
    return step(app, flag, person, {
      kind: 'comment',
      remark: body.remark,
      change: async () => true,
      refusal: '',
    });
  },

  'POST /api/flags/:id/taker': async ({ app, params, body, person }) => {
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

  'POST /api/flags/:id/outcome': async ({ app, params, body, person }) => {
    const flag = await needFlag(app.pool, params.id);
    checkTheirs(flag, person, 'close');
    if (body.causeId !== null && !(await causeExists(app.pool, body.causeId))) {
      throw new BeaconError('BAD_INPUT', 'This cause is not on the list.', 'causeId');
    }
    const { outcome } = body;
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

  'DELETE /api/flags/:id/outcome': async ({ app, params, person }) => {
    const flag = await needFlag(app.pool, params.id);
    checkTheirs(flag, person, 'open');
    return step(app, flag, person, {
      kind: 'reopened',
      remark: '',
      change: (db) => reopenFlag(db, flag.id),
      refusal: 'This flag is not closed.',
    });
  },
});
