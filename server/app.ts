import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import express, { type Express, type Response } from 'express';
import { SECURITY_HEADERS } from './headers';
import { instruments, type InstrumentOptions } from './instruments';

/** Files that must be asked for anew each time, so that an update is seen. */
const FRESH = /(^|\/)(index\.html|ngsw\.json|ngsw-worker\.js|safety-worker\.js|worker-basic\.min\.js)$/;
const YEAR_SECONDS = 365 * 24 * 3600;
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
  return app;
}
