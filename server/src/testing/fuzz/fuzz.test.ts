import { ENDPOINTS } from '../../endpoints';
import { scratchDatabase } from '../scratchDatabase';
import { runFuzz } from './runFuzz';

/**
 * A few hundred of the requests that `npm run fuzz` sends by the ten thousand, always the same ones so that a
 * failure repeats.
 */
const REQUESTS = 500;
const SEED = 20_261_128;

it('no odd request is answered 5xx or not at all', async () => {
  const database = await scratchDatabase(process.env.TEST_DATABASE_URL!);
  try {
    const { findings, byClass, neverReached } = await runFuzz(database.url, {
      requests: REQUESTS,
      seed: SEED,
    });
    // Durations are judged by hand only: a busy machine would fail a sound program.
    const wrong = findings.filter(({ status }) => status >= 500 || status === 0);
    expect(wrong).toEqual([]);
    // Requests must get past the first checks, or they would prove nothing.
    expect(byClass['2xx']).toBeGreaterThan(REQUESTS / 5);
    expect(neverReached.length).toBeLessThan(ENDPOINTS.length * 0.6);
  } finally {
    await database.drop();
  }
}, 180_000);
