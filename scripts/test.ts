import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';

/** Runs every check and ends with one line: `N passed, N failed`. */
const root = path.resolve(import.meta.dirname, '..');
const folder = mkdtempSync(path.join(os.tmpdir(), 'zest-report-'));
const PARTS = ['lint', 'types', 'build', 'unit', 'pages'];
const only = process.argv.slice(2);
const unknown = only.filter((name) => !PARTS.includes(name));
if (unknown.length > 0) {
  process.stderr.write(
    `There is no part ${unknown.join(', ')}. The parts are ${PARTS.join(', ')}.\n`,
  );
  process.exit(2);
}
let passed = 0;
let failed = 0;
/** Said again at the end, where they are found. */
const failures: string[] = [];

function run(name: string, command: string, args: string[], env: NodeJS.ProcessEnv = {}): boolean {
  if (only.length > 0 && !only.includes(name)) return true;
  const beganMs = Date.now();
  process.stdout.write(`\n== ${name}\n`);
  const { status } = spawnSync(command, args, {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, ...env },
  });
  process.stdout.write(
    `== ${name}: ${status === 0 ? 'passed' : 'failed'} in ${Math.round((Date.now() - beganMs) / 1000)} s\n`,
  );
  return status === 0;
}

/**
 * Counts a check that has no tests of its own as one. Its words come together once it is done,
 * since others run beside it.
 */
async function check(name: string): Promise<void> {
  if (only.length > 0 && !only.includes(name)) return;
  const beganMs = Date.now();
  const child = spawn('npm', ['run', '--silent', name], { cwd: root });
  let said = '';
  for (const output of [child.stdout, child.stderr])
    output.on('data', (chunk: Buffer) => (said += chunk.toString('utf8')));
  const status = await new Promise<number | null>((resolve) => child.once('close', resolve));
  const seconds = Math.round((Date.now() - beganMs) / 1000);
  process.stdout.write(
    `\n== ${name}\n${said}== ${name}: ${status === 0 ? 'passed' : 'failed'} in ${seconds} s\n`,
  );
  if (status === 0) passed += 1;
  else {
    failed += 1;
    failures.push(name);
  }
}

/** Adds a runner's own counts; a run that ends badly without a report counts as one failure. */
function count(
  ok: boolean,
  report: string,
  read: (report: never) => { passed: number; failed: number },
): void {
  let counts = { passed: 0, failed: 0 };
  try {
    counts = read(JSON.parse(readFileSync(report, 'utf8')) as never);
  } catch {
    // No report: the run's own end says enough.
  }
  passed += counts.passed;
  failed += ok ? counts.failed : Math.max(1, counts.failed);
}

interface UnitReport {
  numPassedTests: number;
  numFailedTests: number;
  testResults: { assertionResults: { status: string; fullName: string }[] }[];
}

const wants = (name: string) => only.length === 0 || only.includes(name);
// Each of them keeps one processor busy.
await Promise.all([check('lint'), check('types').then(() => check('build'))]);
if (wants('unit')) {
  const report = path.join(folder, 'unit.json');
  const ok = run('unit', 'npx', [
    'vitest',
    'run',
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${report}`,
  ]);
  count(ok, report, ({ numPassedTests, numFailedTests, testResults }: UnitReport) => {
    for (const { assertionResults } of testResults)
      failures.push(
        ...assertionResults
          .filter(({ status }) => status === 'failed')
          .map(({ fullName }) => fullName),
      );
    return { passed: numPassedTests, failed: numFailedTests };
  });
}
if (wants('pages')) {
  const report = path.join(folder, 'pages.json');
  const ok = run('pages', 'npx', ['playwright', 'test', '-c', 'e2e/playwright.config.ts'], {
    ZEST_REPORT: report,
  });
  count(
    ok,
    report,
    ({
      stats,
    }: {
      stats: { expected: number; unexpected: number; flaky: number; skipped: number };
    }) => {
      if (stats.flaky > 0)
        process.stdout.write(`== pages: ${stats.flaky} passed only when run once more\n`);
      return { passed: stats.expected + stats.flaky, failed: stats.unexpected + stats.skipped };
    },
  );
}
rmSync(folder, { recursive: true, force: true });
for (const name of failures) process.stdout.write(`failed: ${name}\n`);
process.stdout.write(`\n${passed} passed, ${failed} failed\n`);
process.exitCode = failed === 0 && passed > 0 ? 0 : 1;
