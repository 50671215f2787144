import express, { type Express, type NextFunction, type Request, type Response } from 'express';
import staticGzip from 'express-static-gzip';
import helmet from 'helmet';

/** What the page may do: everything from its own origin, nothing from anywhere else, no code made from strings. */
export const POLICY = {
  defaultSrc: ["'self'"],
  scriptSrc: ["'self'"],
  scriptSrcAttr: ["'none'"],
  // Angular puts component styles into the page as style elements.
  styleSrc: ["'self'", "'unsafe-inline'"],
  imgSrc: ["'self'", 'data:', 'blob:'],
  fontSrc: ["'self'"],
  connectSrc: ["'self'"],
  mediaSrc: ["'self'", 'blob:'],
  workerSrc: ["'self'"],
  manifestSrc: ["'self'"],
  objectSrc: ["'none'"],
  baseUri: ["'self'"],
  formAction: ["'self'"],
  frameAncestors: ["'none'"],
  // Text becomes code or markup only through these: Angular's own, and ours for addresses of this origin.
  requireTrustedTypesFor: ["'script'"],
  trustedTypes: ['angular', 'angular#components', 'default'],
  upgradeInsecureRequests: null,
};

/** The server of the built application under `root`. */
export function createApp(root: string): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(
    helmet({
      contentSecurityPolicy: { useDefaults: false, directives: POLICY },
      crossOriginEmbedderPolicy: { policy: 'require-corp' },
      crossOriginOpenerPolicy: { policy: 'same-origin' },
      strictTransportSecurity: false,
      referrerPolicy: { policy: 'no-referrer' },
    }),
  );
  app.use((_req, res, next) => {
    res.setHeader('Permissions-Policy', 'microphone=(self), midi=(self), camera=(), geolocation=()');
    next();
  });
  app.get('/healthz', (_req, res) => void res.json({ ok: true }));
  app.use((req, _res, next) => {
    // Throws where the address cannot be read; what went wrong is answered below.
    decodeURIComponent(req.path);
    next();
  });
  app.use(
    // What the build left compressed beside a file is sent in its stead.
    staticGzip(root, {
      index: false,
      enableBrotli: true,
      orderPreference: ['br', 'gzip'],
      serveStatic: {
        setHeaders(res, path) {
          const hashed = /-[\w-]{8}\.(js|css|woff2?|svg)(\.br|\.gz)?$/.test(path);
          res.setHeader('Cache-Control', hashed ? 'public, max-age=31536000, immutable' : 'no-cache');
        },
      },
    }),
  );
  // Only page navigations get the page; a missing file is missing. The address of a phrase may have a dot in it.
  app.get('/{*path}', (req, res, next) => {
    const isFile = /\.[a-z0-9]+$/i.test(req.path) && !OF_A_PHRASE.test(req.path);
    if (isFile || !req.accepts('html')) return next();
    res.setHeader('Cache-Control', 'no-cache');
    res.sendFile('index.html', { root });
  });
  app.use((_req, res) => void res.status(404).type('text/plain').send('Not here.'));
  // Four arguments tell Express that this answers what went wrong: shortly, and with nothing of how it is built.
  app.use((error: unknown, _req: Request, res: Response, next: NextFunction) => {
    if (res.headersSent) return next(error);
    const status = statusOf(error);
    res
      .status(status)
      .type('text/plain')
      .send(status < 500 ? 'This address cannot be read.' : 'Something went wrong here.');
  });
  return app;
}

/** The places whose addresses name a phrase. */
const OF_A_PHRASE = /^\/(bench|drill|log|shelf|kit|today|listen)\/[^/]+$/;

function statusOf(error: unknown): number {
  if (error instanceof URIError) return 400;
  const status = typeof error === 'object' && error !== null && 'status' in error ? error.status : 500;
  return typeof status === 'number' && status >= 400 && status < 600 ? status : 500;
}
