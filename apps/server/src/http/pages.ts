import { readFileSync } from 'node:fs';
import path from 'node:path';
import express, { type Router } from 'express';

/** The built pages: hashed assets for ever, the documents with this answer's nonce and never from a cache. */
export function pages(webDir: string): Router {
  const router = express.Router();
  router.use('/assets', express.static(path.join(webDir, 'assets'), { immutable: true, maxAge: '1y', index: false, fallthrough: false }));
  router.use(express.static(webDir, { index: false, extensions: [], maxAge: '1h' }));
  const documents = {
    app: readFileSync(path.join(webDir, 'index.html'), 'utf8'),
    follow: readFileSync(path.join(webDir, 'follow.html'), 'utf8'),
    remote: readFileSync(path.join(webDir, 'remote.html'), 'utf8'),
    privacy: readFileSync(path.join(webDir, 'privacy.html'), 'utf8'),
  };
  const send = (name: keyof typeof documents): express.RequestHandler => (_req, res) => {
    res.set('Cache-Control', 'no-store').type('html').send(documents[name].replaceAll('__NONCE__', String(res.locals['nonce'])));
  };
  router.get(['/follow/:code', '/go'], send('follow'));
  router.get('/remote', send('remote'));
  router.get('/privacy', send('privacy'));
  router.get(/^\/(?!api\/).*/, send('app'));
  return router;
}
