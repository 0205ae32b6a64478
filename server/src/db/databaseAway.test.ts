import { connect, createServer, type Server, type Socket } from 'node:net';
import { listenTo, startTestServer, serverWithMetric, push, type TestServer } from '../testing/testServer';

/** A connection to the database that can be cut and restored. */
class Line {
  private readonly sockets = new Set<Socket>();
  private server: Server | undefined;
  private port = 0;

  constructor(private readonly to: URL) {}

  async mend(): Promise<string> {
    this.server = createServer((socket) => {
      const far = connect(Number(this.to.port), this.to.hostname);
      for (const each of [socket, far]) {
        this.sockets.add(each);
        each.on('error', () => undefined).on('close', () => this.sockets.delete(each));
      }
      socket.pipe(far).pipe(socket);
    });
    await new Promise<void>((resolve) => this.server!.listen(this.port, '127.0.0.1', resolve));
    this.port = (this.server.address() as { port: number }).port;
    const url = new URL(this.to);
    url.host = `127.0.0.1:${this.port}`;
    return url.href;
  }

  cut(): void {
    this.server?.close();
    for (const socket of this.sockets) socket.destroy();
  }
}

let test: TestServer;
let line: Line;
beforeAll(async () => {
  test = await startTestServer({
    through: (url) => {
      line = new Line(new URL(url));
      return line.mend();
    },
  });
});
afterAll(async () => {
  await test.stop();
  line.cut();
});

describe('a database that is away', () => {
  it('is told with 503 and when to come again (RFC 9110, 15.6.4 and 10.2.3), and its return to every screen', async () => {
    const analyst = await test.as('analyst');
    const { token, key } = await serverWithMetric(analyst);
    const screen = await listenTo(test.url, analyst);
    await screen.until('event:hello');

    line.cut();
    await screen.until('"topic":"away"');
    const board = await fetch(`${test.url}/api/boards`, { headers: analyst.headers() });
    expect([board.status, board.headers.get('retry-after')]).toEqual([503, '2']);
    expect(await board.json()).toEqual({
      error: { code: 'NOT_READY', message: expect.stringContaining('database cannot be reached') },
    });
    const sample = { metric: key, t: test.clock.now, v: 1 };
    expect((await push(test.url, token, [sample])).status).toBe(503);
    expect((await test.visitor().signIn('analyst@test.example')).status).toBe(503);

    await line.mend();
    await screen.until('"topic":"everything"');
    expect((await analyst.call('GET', '/api/boards')).status).toBe(200);
    expect((await push(test.url, token, [sample])).body).toMatchObject({ added: 1 });
    screen.stop();
  });
});
