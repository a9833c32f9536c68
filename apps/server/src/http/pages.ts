import { readFileSync } from 'node:fs';
import path from 'node:path';
import express, { type Router } from 'express';
import expressStaticGzip from 'express-static-gzip';

/**
 * The built pages: hashed assets for ever, the documents with this answer's nonce and never from a
 * cache.
 */
export function pages(webDir: string): Router {
  const router = express.Router();
  // Packed when they were built: packing them anew for each phone of a class would keep the others
  // waiting.
  router.use(
    '/assets',
    expressStaticGzip(path.join(webDir, 'assets'), {
      enableBrotli: true,
      orderPreference: ['br'],
      index: false,
      serveStatic: { immutable: true, maxAge: '1y', fallthrough: false },
    }),
  );
  router.use(express.static(webDir, { index: false, extensions: [], maxAge: '1h' }));
  const documents = {
    app: readFileSync(path.join(webDir, 'index.html'), 'utf8'),
    follow: readFileSync(path.join(webDir, 'follow.html'), 'utf8'),
    remote: readFileSync(path.join(webDir, 'remote.html'), 'utf8'),
    privacy: readFileSync(path.join(webDir, 'privacy.html'), 'utf8'),
  };
  const send =
    (name: keyof typeof documents): express.RequestHandler =>
    (_req, res) => {
      res
        .set('Cache-Control', 'no-store')
        .type('html')
        .send(documents[name].replaceAll('__NONCE__', String(res.locals['nonce'])));
    };
  // The lesson comes along with the page's script, not after it.
  router.get('/follow/:code', (req, res, next) => {
    res.set(
      'Link',
      `</api/follow/${encodeURIComponent(req.params.code)}>; rel=preload; as=fetch; crossorigin`,
    );
    send('follow')(req, res, next);
  });
  router.get('/go', send('follow'));
  router.get('/remote', send('remote'));
  router.get('/privacy', send('privacy'));
  router.get(/^\/(?!api\/).*/, send('app'));
  return router;
}
