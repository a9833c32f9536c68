import { pipeline } from 'node:stream/promises';
import type { Response } from 'express';
import { teacherText } from '@zest/core/words';
import { refuse } from '../errors.ts';
import type { MediaStore, RemoteContent } from '../media/store.ts';

/**
 * Sends stored content; range requests are answered, the content's hash is its tag. An address that
 * names a version is good for an hour unasked.
 */
export async function sendContent(
  res: Response,
  store: MediaStore,
  sha: string | null,
  type: string,
  downloadName?: string,
): Promise<void> {
  if (!sha) throw refuse(404, 'not-ready', teacherText('server.not-ready'));
  if (downloadName) res.attachment(downloadName);
  res.set({
    'Content-Type': type,
    'Cache-Control':
      res.req.query['v'] === undefined ? 'private, no-cache' : 'private, max-age=3600',
    ETag: `"${sha}"`,
  });
  const file = await store.here(sha);
  if (file === null && store.remote) return sendFromAfar(res, store.remote, sha);
  res.sendFile(file ?? '', {
    cacheControl: false,
    lastModified: false,
    etag: false,
    dotfiles: 'allow',
  });
}

/** Sends a student's video: from the store itself, where browsers may go there. */
export async function sendVideo(res: Response, store: MediaStore, sha: string): Promise<void> {
  const address = await store.remote?.addressOf(sha, 'video/mp4');
  // It is good for a while only.
  if (address) res.set('Cache-Control', 'no-store').redirect(302, address);
  else await sendContent(res, store, sha, 'video/mp4');
}

/** Hands on what a store elsewhere gives, in the range that is asked for. */
async function sendFromAfar(res: Response, remote: RemoteContent, sha: string): Promise<void> {
  if (res.req.fresh) return void res.status(304).end();
  const { range } = res.req.headers;
  const { body, bytes, contentRange } = await remote.read(sha, range);
  res.status(contentRange === null ? 200 : 206).set({
    'Accept-Ranges': 'bytes',
    'Content-Length': String(bytes),
    ...(contentRange !== null && { 'Content-Range': contentRange }),
  });
  if (res.req.method === 'HEAD') {
    body.destroy();
    return void res.end();
  }
  // Who asked may have had enough: no fault.
  await pipeline(body, res).catch(() => undefined);
}
