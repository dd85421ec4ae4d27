import compression from 'compression';
import express, { type Express } from 'express';
import staticGzip from 'express-static-gzip';
import helmet from 'helmet';
import { join } from 'node:path';
import { ownRequests } from './own-requests.ts';
import { rigEvents } from './rig.ts';
import { VERSION } from './version.ts';

/**
 * The one worker that may make functions from text: the glue of its kernel of exact bodies is built so. A worker has
 * the policy of its own file, sees no page and no storage of it,
 * and is given numbers only; every other script stays under the strict policy.
 */
const STEP_WORKER = /^\/assets\/step\.worker-[\w-]+\.js$/;

/**
 * Serves the built app. Scripts, styles, fonts and workers come from here alone: nothing is loaded from anywhere else,
 * and
 * nothing is sent anywhere.
 *
 * @param folder where the built app lies
 * @param device of a rig, for the bridge; its stand-in where left out
 */
export function createApp(folder: string, device?: string): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(ownRequests);
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'none'"],
          // The kernel that joins solids is WebAssembly; evaluating script stays forbidden.
          scriptSrc: [
            "'self'",
            "'wasm-unsafe-eval'",
            (req) => (STEP_WORKER.test((req as express.Request).path) ? "'unsafe-eval'" : "'self'"),
          ],
          workerSrc: ["'self'"],
          // Popovers, drags and charts place themselves by style attributes.
          styleSrc: ["'self'", "'unsafe-inline'"],
          fontSrc: ["'self'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          connectSrc: ["'self'"],
          manifestSrc: ["'self'"],
          baseUri: ["'none'"],
          formAction: ["'none'"],
          frameAncestors: ["'none'"],
          objectSrc: ["'none'"],
        },
      },
      // Served over plain HTTP on the loopback address: a promise of HTTPS would lock the reader out.
      strictTransportSecurity: false,
      crossOriginEmbedderPolicy: { policy: 'require-corp' },
      referrerPolicy: { policy: 'no-referrer' },
    }),
  );
  app.use((_req, res, next) => {
    res.setHeader('Permissions-Policy', 'camera=(), geolocation=(), microphone=(self), serial=(self)');
    next();
  });
  // Lines of a rig must not wait to be squeezed.
  app.get('/rig/events', rigEvents(device));
  app.use(compression());
  app.get('/health', (_req, res) => {
    res.set('Cache-Control', 'no-store').json({ ok: true, name: 'gristmill', version: VERSION });
  });
  // Files under assets carry a hash of their content in their name and never change; the build has squeezed them once.
  app.use(
    '/assets',
    staticGzip(join(folder, 'assets'), {
      index: false,
      serveStatic: { immutable: true, maxAge: '1y', fallthrough: false },
    }),
  );
  app.use(
    express.static(folder, {
      index: false,
      maxAge: 0,
      setHeaders: (res) => res.setHeader('Cache-Control', 'no-cache'),
    }),
  );
  app.use((req, res) => {
    if (req.method !== 'GET' && req.method !== 'HEAD') {
      res.set('Allow', 'GET, HEAD').status(405).type('text').send('Only GET and HEAD are answered here.');
      return;
    }
    // A missing file is missing; a path without an ending is a page of the app.
    if (/\.[a-z0-9]+$/i.test(req.path)) {
      res.status(404).type('text').send('There is no such file.');
      return;
    }
    res.set('Cache-Control', 'no-cache').sendFile(join(folder, 'index.html'));
  });
  app.use((error: { status?: number }, _req: express.Request, res: express.Response, next: express.NextFunction) => {
    if (res.headersSent) return next(error);
    const status = error.status ?? 500;
    res
      .status(status)
      .type('text')
      .send(status === 404 ? 'There is no such file.' : 'The request could not be answered.');
  });
  return app;
}
