import { mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { readdir, rm } from 'node:fs/promises';
import http from 'node:http';
import os from 'node:os';
import path from 'node:path';
import S3rver from '@20minutes/s3rver';
import { freePort } from '../db/mariadb.ts';

const BUCKET = 'quay';
/** The one account the server knows. */
const KEY = 'S3RVER';

/** Lists the parts of an upload and gives uploads up, which the server cannot by itself. */
function knowParts(server: S3rver): void {
  server.middleware.unshift(async (ctx, next) => {
    const { uploadId } = ctx.query;
    if (typeof uploadId !== 'string' || !['GET', 'DELETE'].includes(ctx.method)) return next();
    const folder = path.join(
      server.store.getResourcePath(BUCKET, undefined, 'uploads'),
      path.basename(uploadId),
    );
    ctx.type = 'application/xml';
    const names = await readdir(folder).catch(() => null);
    if (names === null) {
      ctx.status = 404;
      ctx.body = '<Error><Code>NoSuchUpload</Code><Message>Gone.</Message></Error>';
    } else if (ctx.method === 'DELETE') {
      await rm(folder, { recursive: true });
      ctx.status = 204;
    } else {
      const parts = names
        .filter((name) => /^\d+$/.test(name))
        .sort((a, b) => Number(a) - Number(b))
        .map((name) => {
          const { size } = statSync(path.join(folder, name));
          const tag = readFileSync(path.join(folder, `${name}.md5`), 'utf8');
          return (
            `<Part><PartNumber>${name}</PartNumber><ETag>"${tag}"</ETag>` +
            `<Size>${size}</Size></Part>`
          );
        });
      ctx.status = 200;
      ctx.body = `<ListPartsResult><IsTruncated>false</IsTruncated>${parts.join('')}</ListPartsResult>`;
    }
  });
}

/**
 * An S3 server on loopback with an empty bucket. It keeps what it is sent, in parts too, and answers
 * ranges and signed addresses. What it cannot do: it knows no checksums and removes no parts of
 * uploads by their age, and it signs lists in another way than everybody else, so that no signature
 * is held against another.
 */
export async function startS3() {
  const directory = mkdtempSync(path.join(os.tmpdir(), 'zest-test-s3-'));
  const port = await freePort();
  const begin = async () => {
    const server = new S3rver({
      ...{ port, address: '127.0.0.1', silent: true, directory },
      allowMismatchedSignatures: true,
      configureBuckets: [{ name: BUCKET, configs: [] }],
    });
    knowParts(server);
    await server.run();
    return server;
  };
  let running = await begin();
  // Who keeps a connection open would keep it from ending.
  const end = async () => {
    const closed = running.close();
    running.httpServer.closeAllConnections();
    await closed;
  };
  return {
    settings: {
      endpoint: `http://127.0.0.1:${port}`,
      region: 'test',
      bucket: BUCKET,
      key: KEY,
      secret: KEY,
      cacheBytes: 50_000_000,
      checksums: false,
      isDirect: false,
    },
    /** Loses what is in a folder of the bucket. */
    forget(named: string) {
      rmSync(path.join(directory, BUCKET, named), { recursive: true, force: true });
    },
    /** Refuses everything for so long. */
    async refuse(ms: number) {
      await end();
      const refusing = http.createServer((_req, res) => {
        res.writeHead(503).end();
      });
      await new Promise<void>((resolve) => refusing.listen(port, '127.0.0.1', resolve));
      await new Promise((resolve) => setTimeout(resolve, ms));
      refusing.closeAllConnections();
      await new Promise((resolve) => refusing.close(resolve));
      running = await begin();
    },
    async stop() {
      await end();
      rmSync(directory, { recursive: true, force: true });
    },
  };
}
export type TestS3 = Awaited<ReturnType<typeof startS3>>;
