import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import type { Take } from '@zest/contract';
import { findingsIn, type TakeAnalysis } from '@zest/core/signal';
import { filmClip } from '@zest/demo/proof';
import { proofClips, truthOf, type ProofClip } from '@zest/performer/proof';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { findingWords } from '@zest/core/checks';
import { align, scriptSentences } from '../cli/align.ts';
import { analyse, analysisText } from '../cli/analyse.ts';
import { lessonAt } from '../db/lessons.ts';
import { JobRow, TakeRow } from '../db/models.ts';
import { watchFile } from '../media/analyse.ts';
import { measureMoments } from '../media/loudness.ts';
import { checkOf } from '../publish/check.ts';
import { cutWith } from '../cut/cut.ts';
import { footageFolder } from '../testing/footage.ts';
import { lessonOf, signUpSecond, testServer, until, type TestServer } from '../testing/server.ts';

const SCRIPT = [
  'Stand with your feet a little wider than your hips.',
  'Keep your heels on the floor all the way down.',
  'Look at the wall in front of you.',
  'Push the floor away and stand up tall again.',
  'Breathe out while you are coming up.',
  'Turn your knees outwards a little.',
];
/** Left out when it was filmed. */
const UNSAID = 2;
const footage = footageFolder();
const clip: ProofClip = {
  ...(proofClips()[0] as ProofClip),
  exercise: 'squat',
  turns: 4,
  periodMs: 3_200,
  headMs: 2_000,
  tailMs: 3_500,
  width: 640,
  height: 360,
  fps: 30,
  seed: 3,
};
const said: { startMs: number; endMs: number }[] = [];

/** Sentences with half a second between them, over the clip's picture. */
async function film(): Promise<string> {
  await filmClip(clip, footage.at('silent.mp4'));
  const parts: string[] = [];
  let atMs = 0;
  for (const [i, sentence] of SCRIPT.entries()) {
    if (i === UNSAID) continue;
    const file = footage.at(`said-${i}.wav`);
    execFileSync('espeak-ng', ['-v', 'en-us+f3', '-s', '165', '-w', file, sentence]);
    const padded = footage.at(`padded-${i}.wav`);
    execFileSync('ffmpeg', [
      '-y',
      '-v',
      'error',
      '-i',
      file,
      '-af',
      'silenceremove=start_periods=1:start_threshold=-45dB,areverse,' +
        'silenceremove=start_periods=1:start_threshold=-45dB,areverse,adelay=500',
      padded,
    ]);
    const lengthMs =
      Number(
        execFileSync(
          'ffprobe',
          ['-v', 'error', '-show_entries', 'format=duration', '-of', 'csv=p=0', padded],
          { encoding: 'utf8' },
        ),
      ) * 1_000;
    said.push({ startMs: atMs + 500, endMs: atMs + lengthMs });
    atMs += lengthMs;
    parts.push(padded);
  }
  const list = footage.write('parts.txt', parts.map((file) => `file '${file}'`).join('\n'));
  execFileSync('ffmpeg', [
    '-y',
    '-v',
    'error',
    '-f',
    'concat',
    '-safe',
    '0',
    '-i',
    list,
    '-i',
    footage.at('silent.mp4'),
    '-map',
    '1:v',
    '-map',
    '0:a',
    '-af',
    'apad',
    '-shortest',
    '-c:v',
    'copy',
    '-c:a',
    'aac',
    '-ar',
    '48000',
    footage.at('squats.mp4'),
  ]);
  return footage.at('squats.mp4');
}

let file = '';
let watched: TakeAnalysis;
beforeAll(async () => {
  file = await film();
  watched = await watchFile(file);
});
afterAll(() => footage.remove());

describe('looking at a file', () => {
  it('counts what is done, when, and finds the still time before and after', () => {
    const { repetitions, still, outOfFrame } = findingsIn(watched);
    const truth = truthOf(clip);
    expect(repetitions).toHaveLength(truth.repetitions.length);
    for (const [i, { atMs }] of repetitions.entries())
      expect(Math.abs(atMs - (truth.repetitions[i]?.endMs ?? 0))).toBeLessThan(350);
    expect(outOfFrame).toEqual([]);
    expect(Math.abs((still[0]?.endMs ?? 0) - truth.activeMs.startMs)).toBeLessThan(300);
  });

  it('listens to it', () => {
    expect(watched.loudness.integratedLufs).toBeLessThan(-10);
    expect(watched.loudness.truePeakDb).toBeLessThanOrEqual(1);
    const speechMs = watched.speech.reduce((sum, { startMs, endMs }) => sum + endMs - startMs, 0);
    expect(
      Math.abs(speechMs - said.reduce((sum, { startMs, endMs }) => sum + endMs - startMs, 0)),
    ).toBeLessThan(2_000);
  });

  // EBU Tech 3341, test signals 1 and 2: a stereo sine of 1 kHz at -23 and at -33 dBFS reads -23.0
  // and -33.0, within 0.1.
  it.each([-23, -33])('measures a sine at %d dBFS by EBU Tech 3341', async (level) => {
    const tone = footage.at(`tone${level}.mp4`);
    const wave = `${10 ** (level / 20)}*sin(2*PI*1000*t)`;
    execFileSync('ffmpeg', [
      '-y',
      '-v',
      'error',
      '-f',
      'lavfi',
      '-i',
      `aevalsrc='${wave}|${wave}':s=48000:d=20`,
      '-c:a',
      'aac',
      '-b:a',
      '256k',
      tone,
    ]);
    const { integratedLufs, shortTermLufs } = await measureMoments(tone);
    expect(Math.abs((integratedLufs ?? 0) - level)).toBeLessThanOrEqual(0.1);
    expect(Math.abs((shortTermLufs ?? 0) - level)).toBeLessThanOrEqual(0.15);
  });
});

describe('on the command line', () => {
  it('analyse gives the shape that is written down', () => {
    const json = JSON.parse(analysisText(watched, true)) as Record<string, unknown> & {
      repetitions: { atMs: number; confidence: number }[];
      loudness: Record<string, number>;
    };
    expect(json).toMatchObject({
      outOfFrame: [],
      loudness: {
        integratedLufs: watched.loudness.integratedLufs,
        truePeakDbtp: watched.loudness.truePeakDb,
      },
    });
    expect(
      json.repetitions.every(
        ({ atMs, confidence }) => atMs > 0 && confidence > 0 && confidence <= 1,
      ),
    ).toBe(true);
    expect(Array.isArray(json['still'])).toBe(true);
    expect(analysisText(watched, false)).toContain('4 repetitions.');
  });

  it('analyse says what is wrong with a file, and where', async () => {
    await expect(analyse(footage.at('none.mp4'), true)).rejects.toThrow('There is no file');
    await expect(analyse(footage.write('text.mp4', 'no video at all'), true)).rejects.toThrow(
      'text.mp4 cannot be read',
    );
  });

  it('align finds what was said and says what was not', async () => {
    const script = footage.write('script.txt', `${SCRIPT.join('\n')}\n`);
    const { sentences, added } = JSON.parse(
      await align({ script, audio: file, language: 'en' }, true),
    ) as {
      sentences: { index: number; startMs: number | null; confidence: number | null }[];
      added: unknown[];
    };
    expect(sentences.map(({ index }) => index)).toEqual(SCRIPT.map((_, i) => i));
    expect(sentences[UNSAID]?.startMs).toBeNull();
    const heard = sentences.filter(({ startMs }) => startMs !== null);
    expect(heard).toHaveLength(said.length);
    heard.forEach(({ startMs }, i) =>
      expect(Math.abs((startMs ?? 0) - (said[i]?.startMs ?? 0))).toBeLessThan(150),
    );
    expect(added).toEqual([]);
    await expect(
      align({ script: footage.at('none.txt'), audio: file, language: 'en' }, true),
    ).rejects.toThrow('There is no script');
    await expect(
      align({ script: footage.write('empty.txt', '\n'), audio: file, language: 'en' }, true),
    ).rejects.toThrow('holds no sentence');
  });

  it('align reads a sentence a line, and cuts wrapped prose', () => {
    expect(scriptSentences('Three. Two. One.\nGo.\n')).toEqual(['Three. Two. One.', 'Go.']);
    expect(scriptSentences('Keep the\nrope low. Jump\nsoftly.')).toEqual([
      'Keep the rope low.',
      'Jump softly.',
    ]);
    expect(scriptSentences('Up. Down.')).toEqual(['Up.', 'Down.']);
  });
});

describe('watching a take', () => {
  let server: TestServer;
  beforeAll(async () => {
    server = await testServer();
    void server.startWorker();
  });
  afterAll(() => server.stop());

  it('is done once for its content, and the cut and the check follow it', async () => {
    const client = server.client();
    await client.signUp();
    const block = {
      id: 'squats',
      kind: 'reps' as const,
      title: 'Squat',
      script: SCRIPT.join(' '),
      leadInMs: 2_000,
      reps: 5,
      sets: 1,
      sides: 'both' as const,
      tempo: { downMs: 1_000, holdMs: 600, upMs: 1_000, topHoldMs: 600 },
    };
    const { id } = await client.makeLesson(lessonOf([{ ...block }]));
    const takeId = await client.makeTake(id, 'squats');
    await client.upload(takeId, readFileSync(file));
    const takes = async () => (await client.get(`/api/lessons/${id}/takes`)).body as Take[];
    await until(takes, ([take]) => take?.state === 'ready');
    expect((await client.send('POST', `/api/takes/${takeId}/watching`)).status).toBe(202);
    const [take] = await until(
      takes,
      ([one]) => one?.watching.state === 'ready' && one.said !== null,
    );
    expect(take?.said?.sentences[UNSAID]?.startMs).toBeNull();
    expect((await client.get(`/api/takes/${takeId}/watched`)).body).toMatchObject({ everyMs: 100 });

    await client.send('POST', `/api/takes/${takeId}/watching`);
    expect(await JobRow.count({ where: { kind: 'watch', subjectId: takeId } })).toBe(1);

    const lesson = await lessonAt(id, 1);
    const [own] = lesson.sections[0]?.blocks ?? [];
    if (own) own.footage = { takeId, startsAtMs: 0 };
    const rows = await TakeRow.findAll({ where: { lessonId: id } });
    const { assembly } = await cutWith(lesson, rows, server.store);
    // Counted as it is done, not as it was planned.
    expect(assembly.lanes.counter.map(({ rep }) => rep)).toEqual([1, 2, 3, 4]);
    const caption = assembly.captions.find(({ lines }) =>
      lines.join(' ').startsWith('Push the floor'),
    );
    expect(Math.abs((caption?.startMs ?? 0) - (said[2]?.startMs ?? 0))).toBeLessThan(150);
    expect(assembly.captions.some(({ lines }) => lines.join(' ').includes('wall'))).toBe(false);
    const findings = await checkOf(lesson, rows, server.store);
    const about = (key: string) =>
      findings.filter((finding) => finding.key.startsWith(key)).map(findingWords)[0]?.say;
    expect(about('count squats')).toContain('5 repetitions planned, 4 done');
    expect(about('left out squats')).toContain('Look at the wall');
    expect((await client.get(`/api/lessons/${id}/prints/check`)).headers.get('content-type')).toBe(
      'application/pdf',
    );

    const other = await signUpSecond(server);
    expect((await other.get(`/api/takes/${takeId}/watched`)).status).toBe(404);
    expect((await other.send('POST', `/api/takes/${takeId}/watching`)).status).toBe(404);
  });
});
