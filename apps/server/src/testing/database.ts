import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { TestProject } from 'vitest/node';
import { startMariaDb } from '../db/mariadb.ts';

declare module 'vitest' {
  interface ProvidedContext {
    db: { port: number; password: string; name: string };
  }
}

/** One MariaDB for all server tests, in a folder of its own, gone afterwards. */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'zest-test-db-'));
  const password = 'only-for-tests';
  const db = await startMariaDb(path.join(folder, 'db'), password, ['zest_test']);
  project.provide('db', { port: db.port, password, name: 'zest_test' });
  return async () => {
    await db.stop();
    rmSync(folder, { recursive: true, force: true });
  };
}
