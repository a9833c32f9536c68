import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { expect, it } from 'vitest';
import { settings } from '../config.ts';

const folder = path.resolve(import.meta.dirname, '../../../../deploy');
const units = readdirSync(folder).filter((name) => name.endsWith('.service'));

/** What systemd says of a unit; nothing when it takes it. */
function faultsOf(name: string, text: string): string {
  const scratch = mkdtempSync(path.join(os.tmpdir(), 'zest-test-units-'));
  try {
    const file = path.join(scratch, name);
    // Node lies elsewhere on some machines.
    writeFileSync(file, text.replaceAll('/usr/bin/node', process.execPath));
    const { status, stderr } = spawnSync('systemd-analyze', ['verify', '--man=no', file], {
      encoding: 'utf8',
    });
    return status === 0 ? stderr : stderr || `ended with ${status}`;
  } finally {
    rmSync(scratch, { recursive: true, force: true });
  }
}

it('systemd takes the units, and would not take just anything', () => {
  expect(units).toHaveLength(3);
  for (const unit of units) {
    const text = readFileSync(path.join(folder, unit), 'utf8');
    expect(faultsOf(unit, text)).toBe('');
    expect(faultsOf(unit, text.replace('Type=exec', 'Type=sometimes'))).toContain('sometimes');
  }
});

it('what units set are settings there are', () => {
  for (const unit of units) {
    const text = readFileSync(path.join(folder, unit), 'utf8');
    const named = text.match(/\bZEST_\w+/g) ?? [];
    expect(named.length).toBeGreaterThan(1);
    for (const name of named) expect(Object.keys(settings.shape)).toContain(name);
  }
});
