import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { TestProject } from 'vitest/node';
import { startMariaDb } from '../db/mariadb.ts';
import { WORKERS } from './workers.ts';

declare module 'vitest' {
  interface ProvidedContext {
    db: { port: number; password: string; names: string[] };
  }
}

/**
 * One MariaDB for all server tests, with a database for each worker, in a folder of its own, gone
 * afterwards.
 */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'zest-test-db-'));
  const password = 'only-for-tests';
  const names = Array.from({ length: WORKERS }, (_, i) => `zest_test_${i + 1}`);
  const db = await startMariaDb(path.join(folder, 'db'), password, names);
  project.provide('db', { port: db.port, password, names });
  return async () => {
    await db.stop();
    rmSync(folder, { recursive: true, force: true });
  };
}
