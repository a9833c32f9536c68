import { mkdirSync } from 'node:fs';
import path from 'node:path';
import { z } from 'zod';

const environment = z.object({
  ZEST_DATA: z.string().min(1),
  ZEST_DB_PORT: z.coerce.number().int(),
  ZEST_DB_PASSWORD: z.string().min(1),
  ZEST_DB_NAME: z.string().default('zest'),
  ZEST_HOST: z.string().default('127.0.0.1'),
  ZEST_PORT: z.coerce.number().int().default(0),
  ZEST_SECRET: z.string().min(16).default('only-for-processes-without-http'),
  ZEST_DEMO: z.enum(['0', '1']).default('0'),
  ZEST_WATCH: z.enum(['at once', 'when asked']).default('at once'),
  ZEST_WEB: z.string().optional(),
  ZEST_ADDRESS: z.string().optional(),
  ZEST_TRUST_PROXY: z.string().default(''),
  ZEST_TLS_CERT: z.string().optional(),
  ZEST_TLS_KEY: z.string().optional(),
});

/** Everything a server process is told from outside. */
export interface Config {
  dataDir: string;
  db: { port: number; password: string; name: string };
  host: string;
  port: number;
  sessionSecret: string;
  demo: boolean;
  /** Takes are watched as soon as they are ready. */
  watchesAtOnce: boolean;
  /** Where others open this installation, when it was said at the start. */
  address: string | null;
  /** Proxies whose word on the visitor's address and scheme is taken. */
  trustProxy: readonly string[];
  /** Files of the certificate and key it speaks HTTPS with; null: plain HTTP. */
  tls: { cert: string; key: string } | null;
  /** Folder of the built pages; null when another program serves them. */
  webDir: string | null;
}

/** Reads the process's environment. @throws ZodError naming the variable that is missing */
export function readConfig(env: NodeJS.ProcessEnv = process.env): Config {
  const e = environment.parse(env);
  return {
    dataDir: path.resolve(e.ZEST_DATA),
    db: { port: e.ZEST_DB_PORT, password: e.ZEST_DB_PASSWORD, name: e.ZEST_DB_NAME },
    host: e.ZEST_HOST,
    port: e.ZEST_PORT,
    sessionSecret: e.ZEST_SECRET,
    demo: e.ZEST_DEMO === '1',
    watchesAtOnce: e.ZEST_WATCH === 'at once',
    webDir: e.ZEST_WEB ?? null,
    address: e.ZEST_ADDRESS ?? null,
    trustProxy: e.ZEST_TRUST_PROXY.split(',')
      .map((proxy) => proxy.trim())
      .filter((proxy) => proxy !== ''),
    tls: e.ZEST_TLS_CERT && e.ZEST_TLS_KEY ? { cert: e.ZEST_TLS_CERT, key: e.ZEST_TLS_KEY } : null,
  };
}

/** The folders of an installation, below its data folder; made when missing. */
export function foldersOf(dataDir: string) {
  const folders = {
    media: path.join(dataDir, 'media'),
    uploads: path.join(dataDir, 'uploads'),
    segments: path.join(dataDir, 'cache', 'segments'),
    spoken: path.join(dataDir, 'cache', 'spoken'),
    work: path.join(dataDir, 'work'),
  };
  for (const folder of Object.values(folders)) mkdirSync(folder, { recursive: true, mode: 0o700 });
  return folders;
}
export type Folders = ReturnType<typeof foldersOf>;
