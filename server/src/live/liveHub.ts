import { createHash } from 'node:crypto';
import type { Request, Response } from 'express';
import { createEventBuffer, createSession } from 'better-sse';
import type { LiveMessage } from '@vivid-beacon/core';
import { all, type Queryable } from '../db/database';
import type { Caller } from '../db/reader';
import { Listener } from './listen';
import { RIGHTS_CHANGED, SESSION_ENDED } from './notify';

const MAX_UNREAD = 1024 * 1024;

/** How a session is named where its id must not be read. */
export function hashOfSession(id: string): string {
  return createHash('sha256').update(id).digest('hex');
}

interface Connection {
  readonly sessionId: string;
  readonly personId: string | null;
  /** Whether every plant is seen. Others are told that something of a kind changed, and not which. */
  readonly seesAll: boolean;
}

/**
 * Passes PostgreSQL notifications to every connected browser as server-sent events while its session lasts.
 */
export class LiveHub {
  private readonly listener: Listener;
  private away = false;
  private readonly connections = new Map<Response, Connection>();

  constructor(connectionString: string, onLost: (error: Error) => void) {
    this.listener = new Listener(connectionString, {
      onMessage: (message) => {
        if (message.topic === SESSION_ENDED) this.endSessions(new Set(message.ids));
        else if (message.topic === RIGHTS_CHANGED) this.endOf(new Set(message.ids));
        else this.send(message as LiveMessage);
      },
      onLost: (error) => {
        onLost(error);
        if (!this.away) this.send({ topic: 'away', ids: [] });
        this.away = true;
      },
      onBack: () => {
        this.away = false;
        // Notifications in between were missed, so every screen reads again.
        this.send({ topic: 'everything', ids: [] });
      },
    });
  }

  open(): Promise<void> {
    return this.listener.open();
  }

  /** Ends the connections too, so that the server can stop. */
  async close(): Promise<void> {
    await this.listener.close();
    for (const response of this.connections.keys()) response.end();
  }

  async connect(request: Request, response: Response, { personId, sites }: Caller): Promise<void> {
    // Without chunks a message is one write to the socket instead of three parts; the stream ends with the connection.
    response.useChunkedEncodingByDefault = false;
    const session = await createSession(request, response, { retry: 1000, keepAlive: 20_000 });
    this.connections.set(response, { sessionId: request.sessionID, personId, seesAll: sites === null });
    session.once('disconnected', () => this.connections.delete(response));
    session.push({ connected: true }, 'hello');
  }

  /** Ends the connections of sessions that are over: signed out elsewhere, or past their time. */
  async endOver(db: Queryable): Promise<void> {
    const open = [...new Set([...this.connections.values()].map(({ sessionId }) => sessionId))];
    if (open.length === 0) return;
    const rows = await all<{ sid: string }>(
      db,
      'select sid from session where sid = any($1) and expire > now()',
      [open],
    );
    const known = new Set(rows.map(({ sid }) => sid));
    this.endSessions(new Set(open.filter((id) => !known.has(id)).map(hashOfSession)));
  }

  private endSessions(ended: ReadonlySet<string>): void {
    for (const [response, { sessionId }] of this.connections) {
      if (ended.has(hashOfSession(sessionId))) response.end();
    }
  }

  /** Ends the connections of these people at once; their pages are told why, and come again with their new rights. */
  private endOf(people: ReadonlySet<string>): void {
    const bytes = bytesOf({}, 'rights');
    for (const [response, { personId }] of this.connections) {
      if (personId === null || !people.has(personId)) continue;
      this.connections.delete(response);
      response.end(bytes);
    }
  }

  /** The bytes are the same for many, so they are written once and handed to every connection. */
  private send(message: LiveMessage): void {
    const whole = bytesOf(message, 'change');
    const withoutIds = bytesOf({ ...message, ids: [] }, 'change');
    for (const [{ socket }, { seesAll }] of this.connections) {
      if (!socket) continue;
      const bytes = seesAll ? whole : withoutIds;
      // A connection that does not read is closed; its browser reconnects, instead of filling memory here.
      if (socket.writableLength > MAX_UNREAD) socket.destroy();
      else socket.write(bytes);
    }
  }
}

function bytesOf(data: unknown, event: string): Buffer {
  const buffer = createEventBuffer();
  buffer.push(data, event);
  return Buffer.from(buffer.read());
}
