import { execFileSync } from 'node:child_process';
import { existsSync, utimesSync } from 'node:fs';
import type { Performance, Storage, Take } from '@zest/contract';
import { makeLesson } from '@zest/core/lesson';
import { MARK_LEAD_MS, MARK_NUMBERS, MARK_TAIL_MS, markSamples } from '@zest/core/signal';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { sweepContent } from '../db/content.ts';
import { PerformanceRow, RevisionRow, TakeRow } from '../db/models.ts';
import { footageFolder } from '../testing/footage.ts';
import {
  lessonOf,
  testServer,
  until,
  type TestClient,
  type TestServer,
} from '../testing/server.ts';

const RATE = 44_100;
const footage = footageFolder();
let server: TestServer;
let teacher: TestClient;
let lessonId: string;

interface Played {
  number: number;
  blockStartMs: number;
  playedMs: number;
}

/**
 * A phone's video: other rate of pictures and sound, a noisy room, a clock that is off, and the
 * marks of performances in it.
 */
function phoneVideo(
  name: string,
  seconds: number,
  played: readonly Played[],
  driftPpm = 0,
): Buffer {
  const sound = new Float32Array(seconds * RATE);
  let seed = 7;
  for (let i = 0; i < sound.length; i += 1) {
    seed = (Math.imul(seed, 1_664_525) + 1_013_904_223) >>> 0;
    sound[i] = 0.02 * (seed / 2 ** 31 - 1);
  }
  const put = (samples: Float32Array, atMs: number) => {
    const from = Math.round((atMs / 1000) * (1 + driftPpm / 1e6) * RATE);
    samples.forEach((value, i) => (sound[from + i] = (sound[from + i] ?? 0) + 0.2 * value));
  };
  for (const { number, blockStartMs, playedMs } of played) {
    put(markSamples('start', number, RATE), blockStartMs - MARK_LEAD_MS);
    put(markSamples('end', number, RATE), blockStartMs + playedMs + MARK_TAIL_MS);
  }
  const raw = footage.write(`${name}.f32`, Buffer.from(sound.buffer));
  const file = footage.at(name);
  execFileSync('ffmpeg', [
    ...[
      '-y',
      '-v',
      'error',
      '-f',
      'lavfi',
      '-i',
      `testsrc=size=320x240:rate=29.97:duration=${seconds}`,
      '-f',
      'f32le',
      '-ar',
      String(RATE),
      '-ac',
      '1',
      '-i',
      raw,
    ],
    ...[
      '-c:v',
      'libx264',
      '-preset',
      'ultrafast',
      '-pix_fmt',
      'yuv420p',
      '-c:a',
      'aac',
      '-b:a',
      '96k',
      '-shortest',
      file,
    ],
  ]);
  return footage.read(name);
}

beforeAll(async () => {
  server = await testServer();
  teacher = server.client();
  await teacher.signUp();
  lessonId = (
    await teacher.makeLesson(
      lessonOf([
        { kind: 'talk', id: 'one', title: 'One' },
        { kind: 'talk', id: 'two', title: 'Two' },
      ]),
    )
  ).id;
  void server.startWorker();
});
afterAll(async () => {
  await server.stop();
  footage.remove();
});

const perform = async (blockId: string, playedMs: number | null): Promise<Performance> =>
  (
    await teacher.send('POST', `/api/lessons/${lessonId}/performances`, {
      blockId,
      shotId: 'usual',
      playedMs,
    })
  ).body as Performance;
const takes = async () => (await teacher.get(`/api/lessons/${lessonId}/takes`)).body as Take[];
const take = async (id: string) => (await takes()).find((one) => one.id === id);
const ended = (id: string) =>
  until(
    () => take(id),
    (one) => one?.state === 'ready' || one?.state === 'failed',
  );
const importFile = async (bytes: Buffer, blockId = ''): Promise<string> => {
  const id = await teacher.makeTake(lessonId, blockId);
  await teacher.upload(id, bytes);
  await ended(id);
  return id;
};

describe('performances', () => {
  it('are numbered one after the other, and round again', async () => {
    const first = await perform('one', 10_000);
    const second = await perform('two', null);
    expect(second.number).toBe((first.number + 1) % MARK_NUMBERS);
    expect(
      (await teacher.send('PUT', `/api/performances/${second.id}`, { playedMs: 4_000 })).body
        .playedMs,
    ).toBe(4_000);
    expect(
      (await teacher.send('PUT', `/api/performances/${second.id}`, { playedMs: -1 })).status,
    ).toBe(400);
    await PerformanceRow.update({ number: MARK_NUMBERS - 1 }, { where: { id: second.id } });
    expect((await perform('one', 1_000)).number).toBe(0);
  });

  it('cannot be given to another lesson’s take', async () => {
    const { id } = await perform('one', 1_000);
    const other = await teacher.makeLesson(makeLesson('Other', () => 'x'));
    const answer = await teacher.send('POST', `/api/lessons/${other.id}/takes`, {
      blockId: 'x',
      performanceId: id,
      name: 'T',
      source: 'camera',
    });
    expect([answer.status, answer.body.code]).toEqual([422, 'no-performance']);
  });
});

describe('a phone’s file', () => {
  it(
    'finds its blocks by the marks in it, taken apart where it holds two, offsets ' +
      'within 10 ms and drift measured',
    async () => {
      const one = await perform('one', 20_000);
      const two = await perform('two', 12_000);
      const id = await importFile(
        phoneVideo(
          'phone.mp4',
          62,
          [
            { number: one.number, blockStartMs: 8_000, playedMs: 20_000 },
            { number: two.number, blockStartMs: 41_000, playedMs: 12_000 },
          ],
          200,
        ),
      );
      const filmed = await take(id);
      expect(filmed).toMatchObject({
        blockId: 'one',
        performance: { id: one.id, number: one.number },
      });
      expect(Math.abs((filmed?.marked?.startMs ?? 0) - 8_000 * 1.0002)).toBeLessThan(10);
      expect(Math.abs((filmed?.marked?.endMs ?? 0) - 28_000 * 1.0002)).toBeLessThan(10);
      expect(Math.abs((filmed?.marked?.rate ?? 0) - 1.0002)).toBeLessThan(0.0002);
      const second = (await takes()).find(({ performance }) => performance?.id === two.id);
      expect(second).toMatchObject({ blockId: 'two', state: 'ready', duplicateOf: null });
      expect(Math.abs((second?.marked?.startMs ?? 0) - 41_000 * 1.0002)).toBeLessThan(10);
      expect(filmed?.bytes).toBe(footage.read('phone.mp4').length);
    },
  );

  it('stays on the block it was put on by hand, and lies by its mark only if that is the block’s', async () => {
    const one = await perform('one', 3_000);
    const bytes = phoneVideo('hand.mp4', 14, [
      { number: one.number, blockStartMs: 6_000, playedMs: 3_000 },
    ]);
    expect(await take(await importFile(bytes, 'two'))).toMatchObject({
      blockId: 'two',
      marked: null,
    });
    const right = await take(await importFile(bytes, 'one'));
    expect(Math.abs((right?.marked?.startMs ?? 0) - 6_000)).toBeLessThan(10);
    // Another copy of the same file, by content.
    const again = await importFile(bytes, 'one');
    expect((await take(again))?.duplicateOf).toBe(right?.id);
    // Moved to another block, it no longer lies by the mark.
    expect(
      (await teacher.send('PUT', `/api/takes/${again}`, { blockId: 'two' })).body,
    ).toMatchObject({ blockId: 'two', marked: null, performance: null });
  });

  it('without marks waits for its block, and is kept as it came', async () => {
    const bytes = phoneVideo('plain.mp4', 3, []);
    const id = await importFile(bytes);
    expect(await take(id)).toMatchObject({ state: 'ready', blockId: '', marked: null });
    const original = await teacher.bytes(`/api/takes/${id}/original`);
    expect(Buffer.from(original).equals(bytes)).toBe(true);
  });
});

describe('takes', () => {
  it('carry a reason and a note, and nothing else than these', async () => {
    const id = await teacher.makeTake(lessonId, 'one');
    expect(
      (await teacher.send('PUT', `/api/takes/${id}`, { reason: 'miscount', note: 'Nine of ten.' }))
        .body,
    ).toMatchObject({ reason: 'miscount', note: 'Nine of ten.', blockId: 'one' });
    expect((await teacher.send('PUT', `/api/takes/${id}`, { reason: 'bad luck' })).status).toBe(
      400,
    );
    expect((await teacher.send('PUT', `/api/takes/${id}`, { note: 'x'.repeat(401) })).status).toBe(
      400,
    );
  });

  it('go to the bin and come back; emptied, their content is gone unless another take has it', async () => {
    const bytes = phoneVideo('bin.mp4', 2, []);
    const kept = await importFile(bytes, 'one');
    const binned = await importFile(bytes, 'two');
    const lone = await importFile(phoneVideo('lone.mp4', 4, []), 'two');
    const sha = async (id: string) => (await TakeRow.findByPk(id))?.originalSha ?? '';
    const [shared, alone] = [await sha(kept), await sha(lone)];
    for (const id of [binned, lone])
      expect((await teacher.send('PUT', `/api/takes/${id}`, { inBin: true })).body.inBin).toBe(
        true,
      );
    expect((await teacher.send('PUT', `/api/takes/${binned}`, { inBin: false })).body.inBin).toBe(
      false,
    );
    await teacher.send('PUT', `/api/takes/${binned}`, { inBin: true });
    const before = (await teacher.get(`/api/lessons/${lessonId}/storage`)).body as Storage;
    expect(before.binBytes).toBeGreaterThan(0);
    expect((await teacher.send('DELETE', `/api/lessons/${lessonId}/bin`)).status).toBe(204);
    const after = (await teacher.get(`/api/lessons/${lessonId}/storage`)).body as Storage;
    expect([after.binBytes, before.bytes - after.bytes]).toEqual([0, before.binBytes]);
    expect([
      existsSync(server.store.pathOf(shared)),
      existsSync(server.store.pathOf(alone)),
    ]).toEqual([true, false]);
    expect([await take(binned), (await take(kept))?.state]).toEqual([undefined, 'ready']);
  });

  it('and content that nothing names are swept a day later; what is named, or has just come, stays', async () => {
    const kept = await importFile(phoneVideo('kept.mp4', 3, []), 'one');
    const named = (await TakeRow.findByPk(kept))?.originalSha ?? '';
    const bring = (text: string) => server.store.take(footage.write('left.bin', text));
    const [left, fresh, again] = [
      await bring('left by a kill'),
      await bring('brought just now'),
      await bring('brought twice'),
    ];
    const old = new Date(Date.now() - 25 * 3_600_000);
    for (const sha of [named, left, again]) utimesSync(server.store.pathOf(sha), old, old);
    await bring('brought twice');
    expect(await sweepContent(server.sequelize, server.store)).toBe(1);
    expect(
      await Promise.all([named, left, fresh, again].map((sha) => server.store.has(sha))),
    ).toEqual([true, false, true, true]);
  });

  it(
    'go with a lesson that is deleted for good, with its revisions, links and all ' +
      'content that nothing else names',
    async () => {
      const bytes = phoneVideo('both.mp4', 2, []);
      const elsewhere = await importFile(bytes, 'one');
      const other = await teacher.makeLesson(
        lessonOf([{ kind: 'talk', title: 'Hello', script: 'A secret of the quay.' }]),
      );
      const shown = (await teacher.send('POST', `/api/lessons/${other.id}/shares`)).body as {
        code: string;
      };
      const answers = [];
      for (const file of [bytes, phoneVideo('alone.mp4', 5, [])]) {
        const id = await teacher.makeTake(other.id);
        await teacher.upload(id, file);
        answers.push(
          await until(
            () => TakeRow.findByPk(id, { rejectOnEmpty: true }),
            ({ workingSha, thumbsSha }) => workingSha !== null && thumbsSha !== null,
          ),
        );
      }
      const [shared, alone] = answers.map(({ originalSha }) => originalSha ?? '') as [
        string,
        string,
      ];
      expect((await TakeRow.findByPk(elsewhere))?.originalSha).toBe(shared);
      const gone = await teacher.send('DELETE', `/api/lessons/${other.id}`);
      expect(gone.body).toMatchObject({ revisions: 1, takes: 2 });
      expect((gone.body as { bytes: number }).bytes).toBeGreaterThan(0);
      expect([
        existsSync(server.store.pathOf(shared)),
        existsSync(server.store.pathOf(alone)),
      ]).toEqual([true, false]);
      expect([
        await TakeRow.count({ where: { lessonId: other.id } }),
        (await server.client().get(`/api/follow/${shown.code}`)).status,
        (await teacher.get(`/api/lessons/${other.id}`)).status,
      ]).toEqual([0, 404, 404]);
      // The class's numbers keep a title to stand under, and nothing else.
      const [left, ...more] = await RevisionRow.findAll({ where: { lessonId: other.id } });
      expect([
        left?.document.includes('Juniper Quay test'),
        left?.document.includes('secret'),
        more.length,
      ]).toEqual([true, false, 0]);
    },
  );

  it('that the lesson or a link shows do not go to the bin', async () => {
    const id = await teacher.makeTake(lessonId, 'one');
    const stored = (await teacher.get(`/api/lessons/${lessonId}`)).body as {
      revision: number;
      lesson: ReturnType<typeof lessonOf>;
    };
    const [block] = stored.lesson.sections[0]?.blocks ?? [];
    if (block) block.footage = { takeId: id, startsAtMs: null };
    await teacher.send('PUT', `/api/lessons/${lessonId}`, {
      baseRevision: stored.revision,
      lesson: stored.lesson,
    });
    const refused = await teacher.send('PUT', `/api/takes/${id}`, { inBin: true });
    expect([refused.status, refused.body.message]).toEqual([
      409,
      expect.stringContaining('Use another take'),
    ]);
  });
});

describe('the voice', () => {
  it('speaks counts in the lesson’s languages, and refuses what is none', async () => {
    const english = await teacher.bytes('/api/spoken/en?words=three');
    expect(Buffer.from(english.subarray(0, 4)).toString()).toBe('RIFF');
    expect(await teacher.bytes('/api/spoken/en?words=three')).toEqual(english);
    expect(await teacher.bytes('/api/spoken/de?words=drei')).not.toEqual(english);
    expect((await teacher.get('/api/spoken/xx?words=a')).status).toBe(404);
    for (const words of ['', 'x'.repeat(121)])
      expect((await teacher.get(`/api/spoken/en?words=${words}`)).status).toBe(400);
    expect(
      Buffer.from(await teacher.bytes('/api/spoken/en?words=-w%20x'))
        .subarray(0, 4)
        .toString(),
    ).toBe('RIFF');
  });
});

describe('a second device', () => {
  const screen = {
    lesson: 'L',
    block: 'Skip',
    next: 'Throw',
    phase: 'filming',
    clock: '0:12',
    count: '3 of 8',
    prompter: [{ kind: 'said', text: 'Land softly.' }],
  };

  it('sees the screen and drives it, by a code and without an account', async () => {
    const { remote } = (await teacher.send('POST', `/api/lessons/${lessonId}/remotes`, {}))
      .body as { remote: string };
    expect(remote).toMatch(/^[A-HJKMNP-Z2-9]{8}$/);
    const stranger = server.client();
    expect(
      (await stranger.send('POST', `/api/remotes/${remote}/commands`, { command: 'go' })).body.code,
    ).toBe('no-view');
    const view = await teacher.listen<{ kind: string }>(`/api/remotes/${remote}/inbox`);
    expect((await teacher.send('PUT', `/api/remotes/${remote}/screen`, screen)).status).toBe(204);
    const device = await stranger.listen<{ kind: string }>(
      `/api/remotes/${remote.toLowerCase()}/screen`,
    );
    await until(
      () => Promise.resolve(device.heard),
      (seen) => seen.length > 0,
    );
    expect(device.heard[0]).toEqual({ kind: 'screen', screen });
    expect(
      (await stranger.send('POST', `/api/remotes/${remote}/commands`, { command: 'go' })).status,
    ).toBe(204);
    await until(
      () => Promise.resolve(view.heard),
      (seen) => seen.some(({ kind }) => kind === 'command'),
    );
    expect(view.heard).toEqual([
      { kind: 'devices', count: 0 },
      { kind: 'devices', count: 1 },
      { kind: 'command', command: 'go' },
    ]);
    expect(
      (await stranger.send('POST', `/api/remotes/${remote}/commands`, { command: 'erase' })).status,
    ).toBe(400);
    await teacher.send('DELETE', `/api/remotes/${remote}`);
    await until(
      () => Promise.resolve(device.heard),
      (seen) => seen.some(({ kind }) => kind === 'closed'),
    );
    expect((await stranger.get(`/api/remotes/${remote}/screen`)).status).toBe(404);
    await Promise.all([view.leave(), device.leave()]);
  });

  it('gets nothing by a wrong code', async () => {
    expect((await server.client().get('/api/remotes/AAAAAAAA/screen')).status).toBe(404);
    expect(
      (await server.client().send('POST', '/api/remotes/AAAAAAAA/commands', { command: 'go' }))
        .status,
    ).toBe(404);
  });
});
