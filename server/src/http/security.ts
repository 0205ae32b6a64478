import type { RequestHandler } from 'express';
import session from 'express-session';
import connectPgSimple from 'connect-pg-simple';
import helmet from 'helmet';
import type { Pool } from '../db/database';

const TWELVE_HOURS_MS = 12 * 3_600_000;

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
      // The cookie ends twelve hours after signing in, whatever is asked meanwhile: nothing to write each time.
      disableTouch: true,
    }),
    resave: false,
    saveUninitialized: false,
    rolling: false,
    cookie: { httpOnly: true, sameSite: 'lax', secure, maxAge: TWELVE_HOURS_MS },
  });
}

declare module 'express-session' {
  interface SessionData {
    personId: string;
  }
}
