import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { z } from 'zod';
import { alive } from '../alive.ts';

/** Secrets of an installation, made once and kept readable to its owner only. */
const secretsSchema = z.object({ dbPassword: z.string(), sessionSecret: z.string() });
export type Secrets = z.infer<typeof secretsSchema>;

/** What a running server leaves for `stop` and for a second `start`. */
const runningSchema = z.object({
  pid: z.number(),
  url: z.string().nullable(),
  dbPort: z.number().nullable(),
});
export type Running = z.infer<typeof runningSchema>;

export function secretsOf(dataDir: string): Secrets {
  mkdirSync(dataDir, { recursive: true, mode: 0o700 });
  const file = path.join(dataDir, 'secrets.json');
  if (existsSync(file)) return secretsSchema.parse(JSON.parse(readFileSync(file, 'utf8')));
  const secrets = {
    dbPassword: randomBytes(24).toString('base64url'),
    sessionSecret: randomBytes(32).toString('base64url'),
  };
  writeFileSync(`${file}.part`, JSON.stringify(secrets), { mode: 0o600 });
  renameSync(`${file}.part`, file);
  return secrets;
}

const runningFile = (dataDir: string) => path.join(dataDir, 'running.json');

/**
 * The server running on this data folder, or null; a file left by one that was killed counts for
 * nothing.
 */
export function runningOn(dataDir: string): Running | null {
  if (!existsSync(runningFile(dataDir))) return null;
  const parsed = runningSchema.safeParse(JSON.parse(readFileSync(runningFile(dataDir), 'utf8')));
  if (!parsed.success || !alive(parsed.data.pid)) return null;
  // A process id may have been given to another program meanwhile.
  const command = existsSync(`/proc/${parsed.data.pid}/cmdline`)
    ? readFileSync(`/proc/${parsed.data.pid}/cmdline`, 'utf8')
    : '';
  return command.includes('cli') ? parsed.data : null;
}

export function noteRunning(dataDir: string, running: Running): void {
  mkdirSync(dataDir, { recursive: true, mode: 0o700 });
  writeFileSync(`${runningFile(dataDir)}.part`, JSON.stringify(running), { mode: 0o600 });
  renameSync(`${runningFile(dataDir)}.part`, runningFile(dataDir));
}

export function forgetRunning(dataDir: string): void {
  rmSync(runningFile(dataDir), { force: true });
}
