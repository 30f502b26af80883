import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { createServer, type Server } from 'node:http';
import { constants } from 'node:zlib';
import compression from 'compression';
import express, { type ErrorRequestHandler, type Express, type RequestHandler, type Response } from 'express';
import { SECURITY_HEADERS } from './headers';
import { instruments, type InstrumentOptions } from './instruments';

/** Files that must be asked for anew each time, so that an update is seen. */
const FRESH = /(^|\/)(index\.html|ngsw\.json|ngsw-worker\.js|safety-worker\.js|worker-basic\.min\.js)$/;
const YEAR_SECONDS = 365 * 24 * 3600;
/** Denser than usual: what is sent is kept by the browser for a year. */
const BROTLI = { params: { [constants.BROTLI_PARAM_QUALITY]: 9 } };
const INSTRUMENTS: InstrumentOptions = { seed: 7, now: () => new Date(), everyMs: 5000 };

/**
 * @param web folder of the built app
 * @throws Error when the app is not built
 */
export function createApp(web: URL, options: Partial<InstrumentOptions> = {}): Express {
  const folder = fileURLToPath(web);
  const indexFile = `${folder}index.html`;
  if (!existsSync(indexFile)) throw new Error('The app is not built yet: run "npm run build" first.');

  const app = express();
  app.disable('x-powered-by');
  app.use((_request, response, next) => {
    response.set(SECURITY_HEADERS);
    next();
  });
  app.use(ownHostOnly, readingOnly);
  app.use(compression({ filter: isCompressed, brotli: BROTLI }));
  app.use('/instruments', instruments({ ...INSTRUMENTS, ...options }));
  const sendIndex = (response: Response): void =>
    response.sendFile(indexFile, { headers: { 'Cache-Control': 'no-cache' }, cacheControl: false });
  app.get(['/', '/index.html'], (_request, response) => sendIndex(response));
  app.use(
    express.static(folder, {
      index: false,
      setHeaders: (response, path) =>
        void response.setHeader(
          'Cache-Control',
          FRESH.test(path) ? 'no-cache' : `public, max-age=${YEAR_SECONDS}, immutable`,
        ),
    }),
  );
  // Views are routes of the app; what looks like a file and isn't there is missing.
  app.get('/{*path}', (request, response) => {
    if (/\.[a-z0-9]+$/i.test(request.path)) response.status(404).type('text').send('Not found');
    else sendIndex(response);
  });
  app.use(inPlainWords);
  return app;
}

export interface Patience {
  /** milliseconds until the headers of a request, and the whole of it, must have come */
  readonly headersMs: number;
  readonly requestMs: number;
  readonly checkMs: number;
}

/** Nobody who means well takes longer on the loopback. */
const PATIENCE: Patience = { headersMs: 5000, requestMs: 10_000, checkMs: 1000 };
const KEEP_ALIVE_MS = 5000;

/** A server that cuts sockets which are slow to say what they want. */
export function serverFor(app: Express, { headersMs, requestMs, checkMs }: Patience = PATIENCE): Server {
  return createServer(
    {
      headersTimeout: headersMs,
      requestTimeout: requestMs,
      connectionsCheckingInterval: checkMs,
      keepAliveTimeout: KEEP_ALIVE_MS,
    },
    app,
  );
}

const OWN_NAMES = new Set(['127.0.0.1', 'localhost', '[::1]']);

/** A page elsewhere that has made its own name point here is not answered. */
const ownHostOnly: RequestHandler = (request, response, next) => {
  const [, name, port] = /^(\[[^\]]*\]|[^:]*)(?::(\d+))?$/.exec(request.headers.host ?? '') ?? [];
  if (
    name !== undefined &&
    OWN_NAMES.has(name.toLowerCase()) &&
    Number(port ?? 80) === request.socket.localPort
  )
    next();
  else
    response
      .status(421)
      .type('text')
      .send('This server answers to 127.0.0.1 and localhost on its own port only.');
};

/** Nothing of the user's is kept here, so there is nothing to send. */
const readingOnly: RequestHandler = (request, response, next) => {
  if (request.method === 'GET' || request.method === 'HEAD') next();
  else response.status(405).set('Allow', 'GET, HEAD').type('text').send('Only GET and HEAD.');
};

/** All that shrinks, but for the stream of readings, which must not wait until a block is full. */
function isCompressed(request: express.Request, response: express.Response): boolean {
  const isStream = String(response.getHeader('Content-Type')).startsWith('text/event-stream');
  return !isStream && compression.filter(request, response);
}

/** What went wrong, without a stack or a path of this disk. */
const inPlainWords: ErrorRequestHandler = (
  error: { readonly status?: unknown },
  _request,
  response,
  next,
) => {
  if (response.headersSent) return next(error);
  const status =
    typeof error.status === 'number' && error.status >= 400 && error.status < 500 ? error.status : 500;
  response
    .status(status)
    .type('text')
    .send(
      status === 404 ? 'Not found' : status < 500 ? 'This request cannot be read.' : 'The server has failed.',
    );
};
