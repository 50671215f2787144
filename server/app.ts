import compression from 'compression';
import express, { type Express } from 'express';
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
  app.use(compression());
  app.get('/healthz', (_req, res) => void res.json({ ok: true }));
  app.use(
    express.static(root, {
      index: false,
      setHeaders(res, path) {
        const hashed = /-[A-Z0-9]{8}\.(js|css|woff2?|svg)$/.test(path);
        res.setHeader('Cache-Control', hashed ? 'public, max-age=31536000, immutable' : 'no-cache');
      },
    }),
  );
  // Only page navigations get the page; a missing file is missing.
  app.get('/{*path}', (req, res, next) => {
    if (/\.[a-z0-9]+$/i.test(req.path) || !req.accepts('html')) return next();
    res.setHeader('Cache-Control', 'no-cache');
    res.sendFile('index.html', { root });
  });
  return app;
}
