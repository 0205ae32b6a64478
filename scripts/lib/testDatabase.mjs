import { startCluster } from './cluster.mjs';

/** The server the tests use: TEST_DATABASE_URL, or a cluster of the project's own beside the one of npm start. */
export async function startTestDatabase() {
  if (process.env.TEST_DATABASE_URL) return { url: process.env.TEST_DATABASE_URL, stop: () => undefined };
  return startCluster('postgres-test', { durable: false });
}
