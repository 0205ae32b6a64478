import type { RequestHandler } from 'express';
import session from 'express-session';
import connectPgSimple from 'connect-pg-simple';
import helmet from 'helmet';
import type { Pool } from '../db/database';

/** A session that nobody uses ends after this time. */
const IDLE_MS = 4 * 3_600_000;

/**
 * Response headers. Scripts, workers, fonts and data come from this server only. Styles may stand in the
 * page because React Native's web target and the font loader write style elements at run time.
 */
export function securityHeaders(): RequestHandler {
  return helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'none'"],
        scriptSrc: ["'self'"],
        workerSrc: ["'self'"],
        styleSrc: ["'self'", "'unsafe-inline'"],
        fontSrc: ["'self'"],
        imgSrc: ["'self'", 'data:'],
        connectSrc: ["'self'"],
        manifestSrc: ["'self'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
    // Loopback and plain HTTP inside a plant are usual; a proxy that ends TLS sets this header itself.
    strictTransportSecurity: false,
    referrerPolicy: { policy: 'no-referrer' },
  });
}

/** Sessions live in PostgreSQL, so that several servers share them and a restart signs nobody out. */
export function sessions(pool: Pool, secret: string, secure: boolean): RequestHandler {
  const Store = connectPgSimple(session);
  return session({
    name: 'vivid-beacon',
    secret,
    store: new Store({
      pool,
      tableName: 'session',
      createTableIfMissing: false,
      pruneSessionInterval: false,
      // Use is noted every few minutes (people/session.ts), which saves the session: nothing to write each time.
      disableTouch: true,
    }),
    resave: false,
    saveUninitialized: false,
    rolling: false,
    cookie: { httpOnly: true, sameSite: 'lax', secure, maxAge: IDLE_MS },
  });
}

declare module 'express-session' {
  interface SessionData {
    personId: string;
    /** Times in ms by the clock of the system, as those of the store are. */
    startedAt: number;
    seenAt: number;
    /** When the rights were changed that it was begun with; 0 = never. */
    rightsAt: number;
    agent: string;
    address: string;
  }
}
