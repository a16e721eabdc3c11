// Serves the built app: static files with compression, long caching for hashed names, strict headers.
import { createHash } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { createServer as createPlainServer } from 'node:http';
import { createServer } from 'node:https';
import { fileURLToPath } from 'node:url';
import compression from 'compression';
import express from 'express';
import helmet from 'helmet';
import { lanRoutes } from './lan/routes.mjs';
import { ofBench } from './offline.mjs';

const client = fileURLToPath(new URL('../build/client/', import.meta.url));

const sha256 = (text) => `'sha256-${createHash('sha256').update(text).digest('base64')}'`;

/** What React Router writes into the page, allowed by its hash. */
const inlineScripts = (html) =>
  [...html.matchAll(/<script(?![^>]*\bsrc=)[^>]*>([\s\S]*?)<\/script>/g)].map((m) => sha256(m[1]));

const fromHere = (address = '') => /^(::1|(::ffff:)?127\.)/.test(address);

/**
 * @param {{ port: number, bench: 'demo' | 'own', host?: string, lan?: object }} options `lan`: certificate of this
 * machine in its network; the app is served by HTTPS then, with a letter-box for paired devices
 * @returns the listening server; with `lan` its letter-box stands beside as `box`
 */
export function serve({ port, bench, host, lan }) {
  if (!existsSync(`${client}index.html`)) throw new Error('There is no build; run `npm run build` first.');
  const page = readFileSync(`${client}index.html`, 'utf8').replace(
    /(<meta name="palazzo-bench" content=")[^"]*/,
    `$1${bench}`,
  );
  const app = express();
  app.disable('x-powered-by');
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'none'"],
          scriptSrc: ["'self'", ...inlineScripts(page)],
          workerSrc: ["'self'"],
          // Styles are set through the CSSOM; the hash is that of the empty style element they hang on.
          styleSrc: ["'self'", sha256('')],
          imgSrc: ["'self'", 'data:', 'blob:'],
          fontSrc: ["'self'"],
          connectSrc: ["'self'"],
          manifestSrc: ["'self'"],
          baseUri: ["'none'"],
          formAction: ["'self'"],
          frameAncestors: ["'none'"],
          objectSrc: ["'none'"],
        },
      },
      // On localhost there is no TLS to insist on.
      strictTransportSecurity: false,
      referrerPolicy: { policy: 'no-referrer' },
    }),
  );
  app.use((_, res, next) => {
    res.setHeader('Permissions-Policy', 'camera=(self), serial=(self), geolocation=(), microphone=()');
    next();
  });
  let listening;
  const letters = lan && lanRoutes({ ...lan, port: () => listening.address().port });
  if (letters) app.use('/lan', letters.lan);
  // To the machine itself packing costs more than it saves.
  app.use(
    compression({
      filter: (req, res) => !fromHere(req.socket.remoteAddress) && compression.filter(req, res),
    }),
  );
  app.use(
    '/assets',
    express.static(`${client}assets`, { immutable: true, maxAge: '365d', index: false, fallthrough: false }),
  );
  // The page tells which bench opens first: a service worker that keeps it is another one for the other bench.
  const worker = ofBench(readFileSync(`${client}sw.js`, 'utf8'), bench);
  app.get('/sw.js', (_, res) => {
    res.setHeader('Cache-Control', 'no-cache');
    res.type('js').send(worker);
  });
  app.get('/index.html', (_, res) => {
    res.setHeader('Cache-Control', 'no-cache');
    res.type('html').send(page);
  });
  app.use(express.static(client, { index: false, maxAge: 0 }));
  app.get(/^[^.]*$/, (_, res) => {
    res.setHeader('Cache-Control', 'no-cache');
    res.type('html').send(page);
  });
  // A page that isn't there, or a path that can't be read, tells nothing of the machine.
  app.use((_req, res) => {
    res.status(404).type('text').send('There is no such page here.');
  });
  app.use((e, _req, res, _next) => {
    const status = e.status >= 400 && e.status < 500 ? e.status : 500;
    const said = status === 404 ? 'There is no such page here.' : 'That can’t be served.';
    res.status(status).type('text').send(said);
  });
  return new Promise((resolve, reject) => {
    const server = lan ? createServer({ key: lan.key, cert: lan.cert }, app) : createPlainServer(app);
    listening = server;
    server.listen(port, host, () => resolve(letters ? Object.assign(server, { box: letters.box }) : server));
    server.on('error', (e) => {
      reject(e.code === 'EADDRINUSE' ? new Error(`Port ${port} is taken; set PORT to another one.`) : e);
    });
  });
}
