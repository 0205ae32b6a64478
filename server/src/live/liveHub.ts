import type { Request, Response } from 'express';
import { createEventBuffer, createSession } from 'better-sse';
import type { LiveMessage } from '@vivid-beacon/core';
import { Listener } from './listen';

const MOST_UNREAD = 1024 * 1024;

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
    // Without chunks a message is one write to the socket instead of three parts; the stream ends with the connection.
    response.useChunkedEncodingByDefault = false;
    const session = await createSession(request, response, { retry: 1000, keepAlive: 20_000 });
    this.responses.add(response);
    session.once('disconnected', () => this.responses.delete(response));
    session.push({ connected: true }, 'hello');
  }

  /** The bytes are the same for all, so they are written once and handed to every connection. */
  private send(message: LiveMessage): void {
    const buffer = createEventBuffer();
    buffer.push(message, 'change');
    const bytes = Buffer.from(buffer.read());
    for (const { socket } of this.responses) {
      if (!socket) continue;
      // One that does not read is let go: its browser connects again, instead of filling the memory here.
      if (socket.writableLength > MOST_UNREAD) socket.destroy();
      else socket.write(bytes);
    }
  }
}
