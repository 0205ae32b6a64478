import pg from 'pg';
import { CHANNEL, type HubMessage } from './notify';

const RETRY_MS = 1000;

/** Listens on one connection of its own and takes it up again when it is lost. */
export class Listener {
  private client: pg.Client | undefined;
  private retry: NodeJS.Timeout | undefined;
  private closed = false;

  constructor(
    private readonly connectionString: string,
    private readonly on: {
      readonly onMessage: (message: HubMessage) => void;
      readonly onLost: (error: Error) => void;
      /** It listens again after it was lost. */
      readonly onBack: () => void;
    },
  ) {}

  async open(): Promise<void> {
    const client = new pg.Client({
      connectionString: this.connectionString,
      application_name: 'vivid-beacon live',
      keepAlive: true,
    });
    client.on('error', (error) => {
      this.on.onLost(error);
      this.reopenLater();
    });
    client.on('notification', ({ payload }) => {
      if (payload) this.on.onMessage(JSON.parse(payload) as HubMessage);
    });
    this.client = client;
    await client.connect();
    await client.query(`listen ${CHANNEL}`);
  }

  async close(): Promise<void> {
    this.closed = true;
    clearTimeout(this.retry);
    await this.client?.end().catch(() => undefined);
  }

  private reopenLater(): void {
    if (this.closed || this.retry) return;
    this.retry = setTimeout(() => {
      this.retry = undefined;
      this.client?.end().catch(() => undefined);
      this.open().then(this.on.onBack, (error: Error) => {
        this.on.onLost(error);
        this.reopenLater();
      });
    }, RETRY_MS);
  }
}
