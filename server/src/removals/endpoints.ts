import { removalsApi, RESTORABLE, type Restorable } from '@vivid-beacon/core/src/api/removals';
import { BeaconError, searchWords } from '@vivid-beacon/core';
import { findAsset } from '../assets/sql';
import { needBoard } from '../boards/boards';
import type { Reader } from '../db/reader';
import { readAs } from '../db/reader';
import { endpoints } from '../http/endpoint';
import { findIndicator } from '../indicators/sql';
import { changeAndNotify } from '../live/changeAndNotify';
import { needMetrics } from '../metrics/metrics';
import { effectsOfRemoval } from './effectsSql';
import { findRemoval, pageOfRemovals, restore } from './sql';

/** What each kind is found by, and who hears that it is back. */
const KINDS = {
  asset: { find: findAsset, topic: 'metrics' },
  board: { find: needBoard, topic: 'boards' },
  indicator: { find: findIndicator, topic: 'indicators' },
} as const satisfies Record<
  Restorable,
  { find: (db: Reader, id: string) => Promise<object | undefined>; topic: string }
>;

const kindOf = (text: string): Restorable => RESTORABLE.find((each) => each === text)!;

export const removalEndpoints = endpoints(removalsApi, {
  'GET /api/metrics/:id/removal': async ({ db, params }) => {
    await needMetrics(db, [params.id]);
    return effectsOfRemoval(db, 'metric', params.id);
  },

  'GET /api/removals/:kind/:id': async ({ db, params }) => {
    const kind = kindOf(params.kind);
    if (!(await KINDS[kind].find(db, params.id))) {
      throw new BeaconError('NOT_FOUND', `This ${kind} does not exist any more.`);
    }
    return effectsOfRemoval(db, kind, params.id);
  },

  'GET /api/removals': ({ db, query: { search, ...page } }) => pageOfRemovals(db, searchWords(search), page),

  'POST /api/removals/:kind/:id/restoration': async ({ app, db, params }) => {
    // Boards have an endpoint of their own, for other people.
    const kind = params.kind as Exclude<Restorable, 'board'>;
    await changeAndNotify(
      app.pool,
      KINDS[kind].topic,
      async (own) => {
        const removed = await findRemoval(readAs(own, db.asker), kind, params.id);
        if (!removed) throw new BeaconError('NOT_FOUND', `There is no such removed ${kind}.`);
        if (removed.taken !== null) throw new BeaconError('WRONG_STATE', removed.taken);
        await restore(own, kind, params.id);
      },
      () => [params.id],
    );
  },
});
