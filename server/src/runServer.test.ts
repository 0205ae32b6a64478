import { onTestServer } from './testing/testServer';

const on = onTestServer();

/* The header is from RFC 2068, section 19.7.1.1; 60 s is what proxies commonly use: from memory. */
it('keeps an idle connection open for longer than a proxy does', async () => {
  const answer = await fetch(`${on.test.url}/api/session`, { headers: { connection: 'keep-alive' } });
  const seconds = Number(/timeout=(\d+)/.exec(answer.headers.get('keep-alive') ?? '')?.[1]);
  expect(seconds).toBeGreaterThan(60);
});
