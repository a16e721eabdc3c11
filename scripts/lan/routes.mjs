// The letter-box by HTTP. Only the same origin can ask with a token; nothing is cached.
import express from 'express';
import { derOf } from './authority.mjs';
import { LetterBox, Refusal } from './letterBox.mjs';

/**
 * @param {{ box?: LetterBox, fingerprint: string, authority: string, addresses: string[], port: () => number }} options
 */
export function lanRoutes({ box = new LetterBox(), fingerprint, authority, addresses, port }) {
  const lan = express.Router();
  lan.use((_, res, next) => {
    res.setHeader('Cache-Control', 'no-store');
    next();
  });
  const by = (req) => box.who((req.headers.authorization ?? '').replace(/^Bearer /, ''));
  const answer = (make) => (req, res, next) => {
    try {
      make(req, res);
    } catch (e) {
      next(e);
    }
  };
  lan.get('/here', (_, res) => {
    res.json({
      fingerprint,
      addresses: addresses.map((a) => `https://${a.includes(':') ? `[${a}]` : a}:${port()}`),
    });
  });
  lan.get('/authority.crt', (_, res) => {
    res.setHeader('Content-Disposition', 'attachment; filename="palazzo-authority.crt"');
    res.type('application/x-x509-ca-cert').send(derOf(authority));
  });
  const json = express.json({ limit: '4kb' });
  lan.post(
    '/pair',
    json,
    answer((req, res) => {
      res.status(201).json(box.pair(req.body?.code ?? '', req.body?.name ?? '', req.socket.remoteAddress));
    }),
  );
  lan.post(
    '/invites',
    json,
    answer((req, res) => {
      const device = by(req);
      if (device.role !== 'log') throw new Refusal(403, 'This device may not pair others.');
      res.status(201).json(box.invite(req.body?.role ?? 'log', device.id));
    }),
  );
  lan.get(
    '/devices',
    answer((req, res) => {
      const { id, role } = by(req);
      res.json({ id, role, peers: box.peersOf({ ...box.devices.get(id) }) });
    }),
  );
  lan.delete(
    '/devices/:id',
    answer((req, res) => {
      box.forget(by(req), req.params.id);
      res.status(204).end();
    }),
  );
  // Who isn't paired doesn't even get a letter read in.
  const paired = answer((req, _res) => {
    req.device = by(req);
  });
  lan.post(
    '/letters/:to',
    (req, res, next) => {
      paired(req, res, next);
      if (req.device) next();
    },
    express.raw({ type: 'application/octet-stream', limit: box.limits.letter }),
    answer((req, res) => {
      const bytes = Buffer.isBuffer(req.body) ? req.body : Buffer.alloc(0);
      res.status(201).json({ id: box.post(req.device, req.params.to, bytes) });
    }),
  );
  lan.get(
    '/letters',
    answer((req, res) => {
      res.json(box.waiting(by(req)));
    }),
  );
  lan.get(
    '/letters/:id',
    answer((req, res) => {
      res.type('application/octet-stream').send(box.read(by(req), req.params.id));
    }),
  );
  lan.delete(
    '/letters/:id',
    answer((req, res) => {
      box.collected(by(req), req.params.id);
      res.status(204).end();
    }),
  );
  lan.use((e, _req, res, _next) => {
    const status = e instanceof Refusal ? e.status : (e.status ?? 500);
    const said =
      e instanceof Refusal ? e.message : status === 413 ? 'That letter is too large.' : 'That can’t be read.';
    res.status(status).json({ error: said });
  });
  return { lan, box };
}
