/**
 * `npm run fuzz`: sends 10,000 odd requests to a separate server and reports answers that must not occur.
 * FUZZ_REQUESTS and FUZZ_SEED choose how many and which.
 */
import { scratchDatabase } from '../scratchDatabase';
import { MAX_HELD_MS, runFuzz, SLOWEST_MS, type Finding } from './runFuzz';

const requests = Number(process.env.FUZZ_REQUESTS ?? 10_000);
const seed = Number(process.env.FUZZ_SEED ?? Date.now() % 2 ** 31);
const database = await scratchDatabase(process.env.TEST_DATABASE_URL!);
try {
  const summary = await runFuzz(database.url, {
    requests,
    seed,
    onProgress: (done) => process.stdout.write(`  ${done} of ${requests}\n`),
  });
  const classes = Object.entries(summary.byClass).sort();
  process.stdout.write(
    [
      `seed ${seed}, ${requests} requests: ${classes.map(([key, n]) => `${n} × ${key}`).join(', ')}`,
      `slowest answer ${summary.slowestMs.toFixed(0)} ms (limit ${SLOWEST_MS})`,
      `thread held for at most ${summary.longestHeldMs.toFixed(0)} ms (limit ${MAX_HELD_MS})`,
      `memory in use over the run, MB: ${summary.memory.map((bytes) => (bytes / 1e6).toFixed(0)).join(' ')}`,
      `endpoints never answered with 2xx: ${summary.neverReached.join(', ') || 'none'}`,
      `${summary.findings.length} findings`,
      ...summary.findings.map(lineOf),
      '',
    ].join('\n'),
  );
  process.exitCode = summary.findings.length === 0 ? 0 : 1;
} finally {
  await database.drop();
}

function lineOf({ request, status, tookMs, heldMs, answer }: Finding): string {
  const body = request.body === undefined ? '' : ` ${String(request.body).slice(0, 600)}`;
  return `${status} ${tookMs.toFixed(0)} ms, held ${heldMs.toFixed(0)} ms: ${request.method} ${request.path}${body}\n    ${answer}`;
}
