import type { Request, Response } from 'express';
import { createEventBuffer, createSession } from 'better-sse';
import type { LiveMessage } from '@vivid-beacon/core';
import { Listener } from './listen';

/** Hands what PostgreSQL notifies to every connected browser, as server-sent events. */
export class LiveHub {
  private readonly listener: Listener;
  private readonly responses = new Set<Response>();

  constructor(connectionString: string, onLost: (error: Error) => void) {
    this.listener = new Listener(connectionString, (message) => this.send(message), onLost);
  }

  open(): Promise<void> {
    return this.listener.open();
  }

  /** Ends the connections too, so that the server can stop. */
  async close(): Promise<void> {
    await this.listener.close();
    for (const response of this.responses) response.end();
  }

  async connect(request: Request, response: Response): Promise<void> {
    const session = await createSession(request, response, { retry: 1000, keepAlive: 20_000 });
    this.responses.add(response);
    session.once('disconnected', () => this.responses.delete(response));
    session.push({ connected: true }, 'hello');
  }

  /** The text is the same for all, so it is written once and handed to every connection. */
  private send(message: LiveMessage): void {
    const buffer = createEventBuffer();
    buffer.push(message, 'change');
    const text = buffer.read();
    for (const response of this.responses) response.write(text);
  }
}
