import { existsSync } from 'node:fs';
import { isIP } from 'node:net';
import path from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { Command, InvalidArgumentError, Option } from 'commander';
import {
  exportFormats,
  exportOrderSchema,
  exportShapes,
  exportSizes,
  readAddress,
} from '@zest/contract';
import { LIMITS } from '@zest/core/lesson';
import { lengthText, parseLength } from '@zest/core/time';
import { foldersOf } from '../config.ts';
import { drawPassword } from '../db/accounts.ts';
import { accepts } from '../db/mariadb.ts';
import { migrateBackTo } from '../db/migrations.ts';
import { jobKinds } from '../db/models.ts';
import { wordsOf } from '../errors.ts';
import { surviveClosedOutput } from '../output.ts';
import { diskStore } from '../media/store.ts';
import { exportParts, exportTo, readParts, type ExportPart } from './export.ts';
import { align } from './align.ts';
import { analyse } from './analyse.ts';
import { backUp, keepNewest, restore } from './backup.ts';
import { check } from './check.ts';
import { fit, plan } from './plan.ts';
import { stop } from './stop.ts';
import { serve } from './supervise.ts';
import { withDatabase } from './with-database.ts';

surviveClosedOutput();
const distDir = path.dirname(fileURLToPath(import.meta.url));
const STANDARD_PORT = 4600;
const say = (line: string) => void process.stdout.write(`${line}\n`);

function portNumber(text: string): number {
  const port = Number(text);
  if (!Number.isInteger(port) || port < 0 || port > 65535)
    throw new InvalidArgumentError('A port is a whole number from 0 to 65535.');
  return port;
}

function workerNumber(text: string): number {
  const workers = Number(text);
  if (!Number.isInteger(workers) || workers < 1 || workers > 32)
    throw new InvalidArgumentError('Workers are a whole number from 1 to 32.');
  return workers;
}

function countNumber(text: string): number {
  const count = Number(text);
  if (!Number.isInteger(count) || count < 1)
    throw new InvalidArgumentError('This is a whole number from 1 on.');
  return count;
}

function lengthOf(text: string): number {
  const ms = parseLength(text);
  if (ms === null || ms < LIMITS.targetMs.min || ms > LIMITS.targetMs.max) {
    throw new InvalidArgumentError(
      'A length is written as 12:00, 90 s or 2 min, from ' +
        `${lengthText(LIMITS.targetMs.min)} to ${lengthText(LIMITS.targetMs.max)}.`,
    );
  }
  return ms;
}

const program = new Command('zest').description(
  'Zest Frame: recorded remote lessons with clocks, counts and cues',
);

/** Demo and own lessons live in folders of their own unless one is named. */
const root = path.resolve(distDir, '..', '..', '..');
const standard = { start: path.join(root, '.data'), demo: path.join(root, '.data-demo') };
const folder = (given: string | undefined, kind: keyof typeof standard) =>
  given ? path.resolve(given) : standard[kind];
const data = (command: Command) => command.option('--data <dir>', 'data folder');

function addressOf(text: string): string {
  const address = readAddress(text);
  if (address === null)
    throw new InvalidArgumentError(
      'An address is written as https://lessons.example, with nothing after it.',
    );
  return address;
}

function proxiesOf(text: string): string {
  for (const proxy of text.split(',').map((part) => part.trim())) {
    const [address = '', bits] = proxy.split('/');
    if (isIP(address) === 0 || (bits !== undefined && !/^\d{1,3}$/.test(bits)))
      throw new InvalidArgumentError(
        'Proxies are addresses, or ranges as 10.0.0.0/8, with commas between.',
      );
  }
  return text;
}

interface Serve {
  address?: string;
  trustProxy: string;
  https?: boolean;
  cert?: string;
  key?: string;
  data?: string;
  host: string;
  workers: number;
  port?: number;
  backupTo?: string;
  backupKeep: number;
}
for (const [name, about] of [
  ['demo', 'serve with the demo lesson'],
  ['start', 'serve without demo data'],
] as const) {
  data(program.command(name).description(about))
    .option(
      '--port <n>',
      'port to listen on (default: 4600, or a free one when that is taken)',
      portNumber,
    )
    .option(
      '--workers <n>',
      'programs that render, side by side; more than one pays from four cores on',
      workerNumber,
      1,
    )
    .option('--backup-to <dir>', 'back up into this folder once a day')
    .option('--backup-keep <n>', 'daily backups that are kept', countNumber, 14)
    .option('--host <address>', 'address to listen on; loopback unless told otherwise', '127.0.0.1')
    .option(
      '--address <url>',
      'where others open it, used in every link; without it an owner is asked at the first link',
      addressOf,
    )
    .option(
      '--trust-proxy <addresses>',
      'proxies in front whose word on the visitor is taken, with commas between',
      proxiesOf,
      '',
    )
    .option('--https', 'speak HTTPS, by a certificate of its own unless --cert and --key name one')
    .option('--cert <file>', 'certificate, PEM')
    .option('--key <file>', 'key of the certificate, PEM')
    .action(
      async ({
        host,
        port,
        workers,
        data: given,
        backupTo,
        backupKeep,
        address,
        trustProxy,
        https,
        cert,
        key,
      }: Serve) => {
        if ((cert === undefined) !== (key === undefined))
          throw new Error('--cert and --key go together.');
        for (const file of [cert, key])
          if (file !== undefined && !existsSync(file)) throw new Error(`There is no file ${file}.`);
        process.exitCode = await serve({
          dataDir: folder(given, name),
          host,
          port: port ?? ((await accepts(STANDARD_PORT)) ? 0 : STANDARD_PORT),
          workers,
          address: address ?? null,
          trustProxy,
          https:
            cert !== undefined && key !== undefined
              ? { cert: path.resolve(cert), key: path.resolve(key) }
              : https
                ? 'own'
                : null,
          backup: backupTo === undefined ? null : { to: path.resolve(backupTo), keep: backupKeep },
          demo: name === 'demo',
          root,
          distDir,
          say,
        });
      },
    );
}

/** One part of an installation by itself, with the settings of the environment. */
async function runPart(name: 'http' | 'worker' | 'renderer'): Promise<void> {
  process.env['ZEST_WEB'] ??= path.join(root, 'dist', 'web');
  await import(pathToFileURL(path.join(distDir, `${name}.js`)).href);
}
program
  .command('web')
  .description('answer pages, one server of several; see docs/scale.md for its settings')
  .action(() => runPart('http'));
program
  .command('worker')
  .description('do jobs, one worker of several; see docs/scale.md for its settings')
  .option('--kinds <kinds>', `some of ${jobKinds.join(', ')} (default: all)`)
  .action(async ({ kinds }: { kinds?: string }) => {
    if (kinds !== undefined) process.env['ZEST_KINDS'] = kinds;
    await runPart('worker');
  });
program
  .command('renderer')
  .description('render pieces of exports, without a database; see docs/scale.md for its settings')
  .action(() => runPart('renderer'));

data(program.command('stop').description('end what start or demo started')).action(
  async (options: { data?: string }) => {
    const folders = options.data ? [path.resolve(options.data)] : Object.values(standard);
    for (const dataDir of folders)
      process.exitCode = (await stop(dataDir, say)) || process.exitCode;
  },
);

program
  .command('plan <file>')
  .description('print the run sheet of a lesson file')
  .option('--json', 'as JSON, times in milliseconds')
  .action(async (file: string, options: { json?: boolean }) =>
    say(await plan(file, options.json === true)),
  );

program
  .command('fit <file>')
  .description('propose the smallest change that brings a lesson file into its targets')
  .option(
    '--video <length>',
    'length of the video, as 12:00 (default: the lesson’s own target)',
    lengthOf,
  )
  .option('--session <length>', 'length of the session with its pauses', lengthOf)
  .option('--json', 'as JSON, times in milliseconds')
  .action(
    async (
      file: string,
      { video, session, json }: { video?: number; session?: number; json?: boolean },
    ) => say(await fit(file, { videoMs: video, sessionMs: session }, json === true)),
  );

data(program.command('check <lesson>').description('hold a lesson, by its id, against every rule'))
  .option('--json', 'as JSON')
  .action(async (lesson: string, options: { data?: string; json?: boolean }) =>
    say(await check(folder(options.data, 'start'), lesson, options.json === true)),
  );

program
  .command('analyse <clip>')
  .description('look at and listen to a clip: repetitions, frame, stillness, picture, sound')
  .option('--json', 'as JSON, times in milliseconds')
  .action(async (clip: string, options: { json?: boolean }) =>
    say(await analyse(clip, options.json === true)),
  );

program
  .command('align')
  .description('find the sentences of a script in a recording')
  .requiredOption('--script <file>', 'text, a sentence a line')
  .requiredOption('--audio <file>', 'recording, sound or video')
  .option('--language <code>', 'language of the script, as en or de', 'en')
  .option('--json', 'as JSON, times in milliseconds')
  .action(
    async ({
      json,
      ...files
    }: {
      script: string;
      audio: string;
      language: string;
      json?: boolean;
    }) => say(await align(files, json === true)),
  );

interface ExportOptions {
  data?: string;
  out: string;
  only?: ExportPart[];
  size: string;
  format: string;
  shape: string;
  plain?: boolean;
  captions?: boolean;
  otherHand?: boolean;
  secondLanguage?: boolean;
  block?: string;
}
data(program.command('export <lesson>').description('export a lesson, by its id, into a folder'))
  .requiredOption('--out <dir>', 'folder for the files')
  .option('--only <parts>', `some of ${exportParts.join(', ')} (default: all)`, readParts)
  .addOption(
    new Option('--size <lines>', 'height of the picture').choices(exportSizes).default('720'),
  )
  .addOption(
    new Option('--format <format>', 'kind of video file').choices(exportFormats).default('mp4'),
  )
  .option('--plain', 'without clocks, counts and cues')
  .option('--captions', 'with captions burned in')
  .option('--other-hand', 'turned round for students of the other hand')
  .addOption(
    new Option('--shape <shape>', '16:9, or 9:16 with the picture above')
      .choices(exportShapes)
      .default('wide'),
  )
  .option('--second-language', 'in the lesson’s second language')
  .option('--block <id>', 'one block alone, as a short clip')
  .action(
    async (
      lesson: string,
      {
        data: given,
        out,
        only,
        plain,
        captions,
        otherHand,
        secondLanguage,
        block,
        ...asked
      }: ExportOptions,
    ) => {
      const order = exportOrderSchema.parse({
        ...asked,
        overlays: plain !== true,
        captions: captions === true,
        hand: otherHand ? 'other hand' : 'as filmed',
        language: secondLanguage ? 'second' : 'first',
        blockId: block ?? null,
      });
      await exportTo(
        folder(given, 'start'),
        lesson,
        path.resolve(out),
        order,
        only ?? exportParts,
        say,
      );
    },
  );

data(program.command('backup').description('copy everything into a folder, also while it serves'))
  .requiredOption(
    '--to <dir>',
    'folder for backups; states lie side by side in it and share their media',
  )
  .option('--keep <n>', 'remove all but the newest n states', countNumber)
  .action(async ({ data: given, to, keep }: { data?: string; to: string; keep?: number }) => {
    const dataDir = folder(given, 'start');
    const target = path.resolve(to);
    const made = await withDatabase(dataDir, (sequelize, database) =>
      backUp(sequelize, database, diskStore(foldersOf(dataDir).media), target),
    );
    say(
      `Backed up into ${made.folder}: ${made.files} files, ` +
        `${(made.bytes / 1e6).toFixed(1)} MB of media, ${made.known} of them there ` +
        'already.',
    );
    if (keep !== undefined) await keepNewest(target, keep);
  });

data(
  program
    .command('password <name>')
    .description('give an account a new, made-up password and end its sessions'),
).action(async (name: string, options: { data?: string }) => {
  const password = await withDatabase(folder(options.data, 'start'), (sequelize) =>
    drawPassword(sequelize, name),
  );
  say(
    `New password of ${name}: ${password}\nWhoever was signed in as ${name} is signed out. Change it on the Team page.`,
  );
});

data(
  program
    .command('migrate-back <name>')
    .description(
      'take database changes back until the one named is the newest, for an older ' +
        'version of the program; back up first',
    ),
).action(async (name: string, options: { data?: string }) => {
  await withDatabase(folder(options.data, 'start'), (sequelize) => migrateBackTo(sequelize, name));
  say(`The database is at ${name}. Start only the version of the program that goes with it.`);
});

program
  .command('restore <state>')
  .description('bring a backup back into an empty data folder')
  .requiredOption('--data <dir>', 'new data folder')
  .action(async (state: string, options: { data: string }) =>
    restore(path.resolve(state), path.resolve(options.data), say),
  );

try {
  await program.parseAsync();
} catch (error) {
  process.stderr.write(`${wordsOf(error)}\n`);
  process.exitCode = 1;
}
