import path from 'node:path';
import cookieParser from 'cookie-parser';
import express, { type Express } from 'express';
import expressStaticGzip from 'express-static-gzip';
import { pinoHttp } from 'pino-http';
import { BeaconError } from '@vivid-beacon/core';
import { ENDPOINTS } from './endpoints';
import type { AppContext } from './http/appContext';
import type { Endpoint } from './http/endpoint';
import { errorHandler } from './http/errors';
import { mountEndpoints } from './mountEndpoints';
import { describeApi } from './http/openapi';
import { securityHeaders, sessions } from './http/security';

const VERSION = '0.1.0';

/** Builds the server; it can be called without a port. */
export function createApp(
  app: AppContext,
  options: {
    sessionSecret: string;
    secureCookies: boolean;
    webFolder: string | null;
    trustedProxies?: readonly string[];
  },
): Express {
  const server = express();
  server.disable('x-powered-by');
  // Proxies whose X-Forwarded-For and -Proto headers are believed; other clients could claim anything.
  server.set('trust proxy', options.trustedProxies?.length ? [...options.trustedProxies] : false);
  // Before logging and everything else, so that refusing a push costs next to nothing.
  for (const { method, path: at, first } of ENDPOINTS) if (first) server[method](at, first);
  server.use(
    // Logs events without content: no bodies, no query strings, no cookies.
    pinoHttp({
      logger: app.log,
      autoLogging: { ignore: (request) => request.url === '/api/health' },
      serializers: {
        req: ({ method, url }: { method: string; url: string }) => ({ method, path: url.split('?')[0] }),
        res: ({ statusCode }: { statusCode: number }) => ({ statusCode }),
      },
    }),
  );
  // Devices have neither cookies nor pages.
  const devices = express.Router();
  mountEndpoints(devices, ENDPOINTS.filter(isForDevices), app);
  server.use(devices);
  server.use(securityHeaders());
  server.use('/api', cookieParser());
  server.use('/api', sessions(app.pool, options.sessionSecret, options.secureCookies));
  server.use('/api', (_request, response, next) => {
    response.setHeader('Cache-Control', 'no-store');
    next();
  });
  const router = express.Router();
  mountEndpoints(
    router,
    ENDPOINTS.filter((each) => !isForDevices(each)),
    app,
  );
  const description = describeApi(ENDPOINTS, VERSION);
  router.get('/api/openapi.json', (_request, response) => {
    response.json(description);
  });
  server.use(router);
  server.use('/api', () => {
    throw new BeaconError('NOT_FOUND', 'There is no such endpoint. See /api/openapi.json.');
  });
  if (options.webFolder) serveWeb(server, options.webFolder);
  server.use(errorHandler(app));
  return server;
}

function isForDevices({ access }: Endpoint): boolean {
  return access === 'token';
}

/** The built app: hashed files are kept for good, the page itself is asked for every time. */
function serveWeb(server: Express, folder: string): void {
  server.use(
    expressStaticGzip(folder, {
      enableBrotli: true,
      orderPreference: ['br'],
      index: false,
      serveStatic: {
        setHeaders: (response, file) => {
          const hashed = /[.-][0-9a-f]{8,}\.\w+(\.br)?$/.test(file);
          response.setHeader('Cache-Control', hashed ? 'public, max-age=31536000, immutable' : 'no-cache');
        },
      },
    }),
  );
  server.get('/{*page}', (_request, response) => {
    response.setHeader('Cache-Control', 'no-cache');
    response.sendFile(path.join(folder, 'index.html'));
  });
}
