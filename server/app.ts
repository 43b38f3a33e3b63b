import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import express, { type ErrorRequestHandler, type Express } from 'express';
import expressStaticGzip from 'express-static-gzip';
import helmet from 'helmet';
import { caliper } from './stand-ins/caliper';
import { parcels } from './stand-ins/parcels';
import { scanner } from './stand-ins/scanner';

/** Places whose files carry the hash of their content in the name: they never change. */
const HASHED = /^\/_expo\/static\//;
/** Places where a missing file is missing, and not a page of the app. */
const ASSETS = /^\/(_expo|assets|fonts|vendor|demo|service)\/|\.[a-z0-9]{2,5}$/i;

/** Serves the built app and the stand-ins for devices and services: this origin only, compressed, cached by content; every other path is the app's page. */
export function createApp(dist: string): Express {
  const app = express();
  const page = path.join(dist, 'index.html');
  app.disable('x-powered-by');
  // Headers that browsers heed only on secure origins are left out: on a plain local address they are only complained about.
  app.use(
    helmet({
      contentSecurityPolicy: { useDefaults: false, directives: policyFor(readFileSync(page, 'utf8')) },
      strictTransportSecurity: false,
      crossOriginEmbedderPolicy: false,
      crossOriginOpenerPolicy: false,
      originAgentCluster: false,
    }),
  );
  app.use(
    expressStaticGzip(dist, {
      enableBrotli: true,
      orderPreference: ['br'],
      serveStatic: {
        index: false,
        setHeaders: (response, file) => {
          const served = `/${path.relative(dist, file).split(path.sep).join('/')}`;
          response.setHeader('Cache-Control', HASHED.test(served) ? 'public, max-age=31536000, immutable' : 'no-cache');
        },
      },
    }),
  );
  app.use('/service/scanner', scanner());
  app.use('/service/caliper', caliper());
  app.use('/service/parcels', parcels());
  app.use((request, response) => {
    if (request.method !== 'GET' && request.method !== 'HEAD')
      return void response.status(405).type('text').send('Only reading is possible here.');
    if (ASSETS.test(request.path)) return void response.status(404).type('text').send('There is no such file.');
    response.setHeader('Cache-Control', 'no-cache');
    response.sendFile(page);
  });
  app.use(refuse);
  return app;
}

/** What cannot be understood is answered in one plain sentence: no trace, and nothing about this machine. */
const refuse: ErrorRequestHandler = (problem: { readonly status?: number }, _request, response, next) => {
  if (response.headersSent) return next(problem);
  const status = problem.status ?? 500;
  response
    .status(status)
    .type('text')
    .send(
      status === 413
        ? 'That is too large to be read here.'
        : status < 500
          ? 'That request cannot be understood.'
          : 'That did not work here.',
    );
};

/** The hash of nothing: react-native-web makes an empty style element and fills it rule by rule through the object model. */
const EMPTY_STYLE = "'sha256-47DEQpj8HBSa+/TImW+5JCeuQeRkm5NMpJWZG3hSuFU='";

/** This origin only. Inline styles of the page are allowed by their hash; pictures may also be made on the device itself. */
function policyFor(html: string): Record<string, string[]> {
  const inline = [...html.matchAll(/<style[^>]*>([\s\S]*?)<\/style>/g)].map(
    (match) => `'sha256-${createHash('sha256').update(match[1]!).digest('base64')}'`,
  );
  return {
    'default-src': ["'self'"],
    'script-src': ["'self'", "'wasm-unsafe-eval'"],
    'style-src': ["'self'", EMPTY_STYLE, ...inline],
    'img-src': ["'self'", 'data:', 'blob:'],
    'media-src': ["'self'", 'blob:'],
    'font-src': ["'self'"],
    'connect-src': ["'self'"],
    'worker-src': ["'self'"],
    'object-src': ["'none'"],
    'base-uri': ["'none'"],
    'form-action': ["'none'"],
    'frame-ancestors': ["'none'"],
  };
}
