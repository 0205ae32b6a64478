import { endShelves } from '../alarms/setAside';
import { evaluateTimers } from '../alarms/evaluate';
import { evaluatePeriods } from '../alarms/evaluatePeriods';
import { rulePastOf } from '../alarms/rulePastOf';
import { keepScopes } from '../alarms/rules';
import type { AppContext } from '../http/appContext';
import { escalate } from '../alarms/alarmNotices';
import { enqueueLateFlagNotices } from '../flags/flagNotices';
import { refreshLevels } from '../indicators/storedLevels';
import { sendNotices, type Transports } from '../notices/send';
import { tidyUp } from './retention';

const SOON_MS = 1_000;
const OFTEN_MS = 5_000;
const HALF_MINUTE_MS = 30_000;
const HOURLY_MS = 3_600_000;

/**
 * Background jobs; several servers on one database do each piece once, because every job locks the rows it works on.
 * A job queue would add a second list of what is due beside the tables that already say it.
 */
interface Job {
  readonly name: string;
  readonly everyMs: number;
  readonly run: (app: AppContext, posts: Transports) => Promise<unknown>;
}

const JOBS: readonly Job[] = [
  { name: 'housekeeping', everyMs: HOURLY_MS, run: ({ pool, now }) => tidyUp(pool, now()) },
  { name: 'ending shelves', everyMs: OFTEN_MS, run: ({ pool, now }) => endShelves(pool, now()) },
  {
    name: 'silence and hours of rules',
    everyMs: OFTEN_MS,
    run: ({ pool, now }) => evaluateTimers(pool, now()),
  },
  {
    name: 'rules over periods',
    everyMs: OFTEN_MS,
    run: (app) => evaluatePeriods(app.pool, rulePastOf(app), app.now()),
  },
  {
    name: 'scopes of rules',
    everyMs: OFTEN_MS,
    run: (app) => keepScopes(app.pool, app.now(), rulePastOf(app)),
  },
  { name: 'escalation', everyMs: OFTEN_MS, run: ({ pool, now }) => escalate(pool, now()) },
  { name: 'levels of indicators', everyMs: OFTEN_MS, run: refreshLevels },
  { name: 'late flags', everyMs: OFTEN_MS, run: ({ pool, now }) => enqueueLateFlagNotices(pool, now()) },
  { name: 'live sessions', everyMs: HALF_MINUTE_MS, run: ({ pool, live }) => live.endOver(pool) },
  { name: 'sending notices', everyMs: SOON_MS, run: sendNotices },
];

/**
 * Runs every job now and then periodically, never twice at a time. @returns a function that stops them after
 * those in progress.
 */
export function startJobs(app: AppContext, posts: Transports): () => Promise<void> {
  const underWay = new Map<Job, Promise<void>>();
  const run = (job: Job): void => {
    if (underWay.has(job)) return;
    const done = job
      .run(app, posts)
      .catch((error: unknown) => app.log.warn({ err: error }, `${job.name} failed`))
      .then(() => void underWay.delete(job));
    underWay.set(job, done);
  };
  const timers = JOBS.map((job) => {
    run(job);
    return setInterval(run, job.everyMs, job).unref();
  });
  return async () => {
    timers.forEach(clearInterval);
    await Promise.all(underWay.values());
  };
}
