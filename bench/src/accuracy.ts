import { existsSync, mkdirSync, mkdtempSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { findingsIn, SURE_REPETITION, timesKnown, type TakeAnalysis } from '@zest/core/signal';
import { filmClip, makeSpeech, speechKinds, type SpeechKind } from '@zest/demo/proof';
import {
  exercises,
  proofClips,
  truthOf,
  type ProofClip,
  type ProofTruth,
} from '@zest/performer/proof';
import { watchFile } from '../../apps/server/src/media/analyse.ts';
import { ffmpeg } from '../../apps/server/src/media/ffmpeg.ts';
import { alignScript } from '../../apps/server/src/media/speech.ts';
import { cpuOf } from './cpu.ts';
import { peakOf } from './peak.ts';
import type { Result } from './result.ts';

/** Clips are drawn once; they are the same every time. */
const folder = path.join(os.tmpdir(), 'zest-proof');

async function clipFile(clip: ProofClip): Promise<string> {
  mkdirSync(folder, { recursive: true });
  const file = path.join(folder, `${clip.name}.mp4`);
  if (!existsSync(file)) {
    await filmClip(clip, `${file}.part.mp4`);
    renameSync(`${file}.part.mp4`, file);
  }
  return file;
}

interface Seen {
  clip: ProofClip;
  truth: ProofTruth;
  counted: number;
  sure: number;
  timeErrors: number[];
  /** It says that it knows when each is over. */
  isTimed: boolean;
  out: { hit: number; wrong: number; missed: number; wholeMissed: number };
  edges: number[];
}

const STEP_MS = 20;

function compare(clip: ProofClip, watched: TakeAnalysis): Seen {
  const truth = truthOf(clip);
  const { repetitions, outOfFrame, still } = findingsIn(watched);
  const timeErrors =
    repetitions.length === truth.repetitions.length
      ? repetitions.map(({ atMs }, i) => Math.abs(atMs - (truth.repetitions[i]?.endMs ?? 0)))
      : [];
  const out = { hit: 0, wrong: 0, missed: 0, wholeMissed: 0 };
  const inside = (list: readonly { startMs: number; endMs: number }[], ms: number) =>
    list.some(({ startMs, endMs }) => ms >= startMs && ms < endMs);
  for (let ms = 0; ms < truth.durationMs; ms += STEP_MS) {
    const [is, said] = [inside(truth.outOfFrame, ms), inside(outOfFrame, ms)];
    if (is && said) out.hit += STEP_MS;
    else if (is) out.missed += STEP_MS;
    else if (said) out.wrong += STEP_MS;
  }
  out.wholeMissed = truth.outOfFrame.filter(
    ({ startMs, endMs }) =>
      endMs - startMs >= 300 &&
      !outOfFrame.some((one) => Math.min(one.endMs, endMs) > Math.max(one.startMs, startMs)),
  ).length;
  // Whoever is cut off from the first picture on has no dead head to find.
  const edges =
    truth.repetitions.length > 0
      ? [
          Math.abs((still[0]?.endMs ?? 0) - truth.activeMs.startMs),
          Math.abs((still.at(-1)?.startMs ?? truth.durationMs) - truth.activeMs.endMs),
        ]
      : [];
  return {
    clip,
    truth,
    counted: repetitions.length,
    sure: repetitions.filter(({ confidence }) => confidence >= SURE_REPETITION).length,
    timeErrors,
    isTimed: timesKnown(repetitions),
    out,
    edges,
  };
}

const mean = (list: readonly number[]) =>
  list.length === 0 ? 0 : list.reduce((sum, value) => sum + value, 0) / list.length;
const share = (part: number, whole: number) => (whole === 0 ? 1 : part / whole);

function rowOf(name: string, seen: readonly Seen[]): Result {
  const exact = seen.filter(({ counted, truth }) => counted === truth.repetitions.length).length;
  const unsure = seen.filter(({ counted, sure }) => sure < counted).length;
  // A count that is wrong by more than one without a word that it is not sure.
  const silent = seen.filter(
    ({ counted, sure, truth }) =>
      sure === counted && Math.abs(counted - truth.repetitions.length) > 1,
  ).length;
  const errors = seen.flatMap(({ timeErrors }) => timeErrors);
  const wrong = seen
    .filter(({ counted, truth }) => counted !== truth.repetitions.length)
    .map(
      ({ clip, counted, sure, truth }) =>
        `${clip.name} ${counted} for ${truth.repetitions.length}${sure < counted ? ' (not sure)' : ''}`,
    );
  return {
    what: `${name}: ${seen.length} clips`,
    value:
      `${exact} exact, ${unsure} not sure, ${silent} silently over one; times ` +
      `${mean(errors).toFixed(0)} ms (mean)` +
      `${wrong.length > 0 ? `; ${wrong.join(', ')}` : ''}`,
    limit: 'nothing silently over one',
    holds: silent === 0,
  };
}

/**
 * Counts, times, frame and still ends of every proof clip against what was drawn; per exercise, and
 * together.
 */
export async function accuracy(): Promise<Result[]> {
  const seen: Seen[] = [];
  let [footageMs, spentMs] = [0, 0];
  for (const clip of proofClips()) {
    const file = await clipFile(clip);
    const began = performance.now();
    const watched = await watchFile(file);
    spentMs += performance.now() - began;
    footageMs += watched.durationMs;
    seen.push(compare(clip, watched));
  }
  const rows = exercises.map((exercise) =>
    rowOf(
      exercise,
      seen.filter(({ clip }) => clip.exercise === exercise),
    ),
  );
  const exact = share(
    seen.filter(({ counted, truth }) => counted === truth.repetitions.length).length,
    seen.length,
  );
  const surely = seen.filter(({ counted, sure }) => sure === counted);
  const surelyExact = share(
    surely.filter(({ counted, truth }) => counted === truth.repetitions.length).length,
    surely.length,
  );
  const times = mean(seen.flatMap(({ timeErrors }) => timeErrors));
  const timed = seen.filter(({ isTimed, timeErrors }) => isTimed && timeErrors.length > 0);
  const timesSure = mean(timed.flatMap(({ timeErrors }) => timeErrors));
  const sum = (of: (out: Seen['out']) => number) => seen.reduce((all, { out }) => all + of(out), 0);
  const [hit, wrong, missed, whole] = [
    sum((out) => out.hit),
    sum((out) => out.wrong),
    sum((out) => out.missed),
    sum((out) => out.wholeMissed),
  ];
  const still = seen
    .filter(({ clip }) => clip.exercise === 'one-leg-balance')
    .reduce((all, { sure }) => all + sure, 0);
  const ends = seen.flatMap(({ edges }) => edges);
  return [
    ...rows,
    {
      what: `all ${seen.length} clips: exact count`,
      value: `${(exact * 100).toFixed(1)} %; of the ${surely.length} it is sure of ${(surelyExact * 100).toFixed(1)} %`,
      limit: 'at least 95 % of those it is sure of',
      holds: surelyExact >= 0.95,
    },
    {
      what: 'repetition times where the count is exact',
      value:
        `${times.toFixed(0)} ms (mean); where it says that it knows them (${timed.length}` +
        ` clips) ${timesSure.toFixed(0)} ms`,
      limit: 'at most 100 ms where it says so',
      holds: timesSure <= 100,
    },
    {
      what: 'repetitions surely counted in balances',
      value: String(still),
      limit: 'none',
      holds: still === 0,
    },
    {
      what: 'out of the picture',
      value:
        `recall ${share(hit, hit + missed).toFixed(3)}, precision ` +
        `${share(hit, hit + wrong).toFixed(3)}, ${whole} stretches missed`,
      limit: 'recall 0.90, precision 0.95, none missed',
      holds: share(hit, hit + missed) >= 0.9 && share(hit, hit + wrong) >= 0.95 && whole === 0,
    },
    {
      what: 'still before and after',
      value: `${(share(ends.filter((ms) => ms <= 300).length, ends.length) * 100).toFixed(0)} % of ends within 0.3 s`,
      limit: 'at least 90 %',
      holds: share(ends.filter((ms) => ms <= 300).length, ends.length) >= 0.9,
    },
    {
      what: `watching ${Math.round(footageMs / 60_000)} min`,
      value: `${(spentMs / footageMs).toFixed(2)} times its length`,
      limit: 'at most its length',
      holds: spentMs <= footageMs,
    },
  ];
}

async function spoken(kind: SpeechKind): Promise<Result> {
  const proof = makeSpeech(kind);
  let found = { sentences: [], added: [] } as Awaited<ReturnType<typeof alignScript>>;
  const cpu = await cpuOf(async () => {
    found = await alignScript(proof.script, proof.samples, 'en');
  });
  const minutes = proof.samples.length / proof.rate / 60;
  const said = proof.said.filter((one) => one !== null).length;
  const errors = proof.said.flatMap((one, i) => {
    const sentence = found.sentences[i];
    return one && sentence ? [Math.abs(sentence.startMs - one.startMs)] : [];
  });
  const within = (ms: number) => share(errors.filter((error) => error <= ms).length, said);
  const skips = proof.said.filter((one) => one === null).length;
  const skipsFound = proof.said.filter(
    (one, i) => one === null && found.sentences[i] === null,
  ).length;
  const overlap = (a: { startMs: number; endMs: number }, b: { startMs: number; endMs: number }) =>
    Math.min(a.endMs, b.endMs) - Math.max(a.startMs, b.startMs);
  const addedFound = proof.added.filter((one) =>
    found.added.some((stretch) => overlap(one, stretch) > (one.endMs - one.startMs) / 2),
  ).length;
  const falselyAdded = found.added.filter(
    (stretch) => !proof.added.some((one) => overlap(one, stretch) > 0),
  ).length;
  const isHard = kind.reworded > 0 || (kind.noiseDb !== null && kind.noiseDb <= 10);
  const mostFalse = Math.max(1, Math.ceil(minutes / 10));
  const holds = isHard
    ? within(500) >= 0.95
    : within(300) >= 0.98 &&
      within(150) >= 0.9 &&
      skipsFound === skips &&
      addedFound >= 0.9 * proof.added.length &&
      falselyAdded <= mostFalse;
  const percent = (part: number) => `${(part * 100).toFixed(1)} %`;
  return {
    what: `${kind.name}: ${minutes.toFixed(1)} min, ${said} sentences`,
    value:
      `${percent(within(150))} within 0.15 s, ${percent(within(300))} within 0.3 s, ` +
      `${percent(within(500))} within 0.5 s; left out ${skipsFound} of ${skips}, added ` +
      `${addedFound} of ${proof.added.length}, ${falselyAdded} falsely; ` +
      `${(cpu / 1_000 / minutes).toFixed(1)} s of processor a minute`,
    limit: isHard ? '95 % within 0.5 s' : '98 % within 0.3 s, 90 % within 0.15 s',
    holds,
  };
}

const LONG: SpeechKind = {
  name: 'a lesson of 20 min',
  voice: 'en-us+m3',
  seed: 20,
  sentences: 330,
  skip: 0.05,
  add: 0.03,
  noiseDb: 25,
  musicDb: null,
  beeps: true,
  reworded: 0,
};
const MOST_MB = 500;
const MOST_CPU_S = 6;

/** The greatest `zest align` is over a recording, in MB. */
async function alignedIn({
  script,
  samples,
  rate,
}: ReturnType<typeof makeSpeech>): Promise<number> {
  const scratch = mkdtempSync(path.join(os.tmpdir(), 'zest-align-'));
  try {
    const [words, raw, sound] = ['script.txt', 'sound.f32', 'sound.wav'].map((name) =>
      path.join(scratch, name),
    ) as [string, string, string];
    writeFileSync(words, script.join('\n'));
    writeFileSync(raw, Buffer.from(samples.buffer, samples.byteOffset, samples.byteLength));
    await ffmpeg(['-f', 'f32le', '-ar', String(rate), '-ac', '1', '-i', raw, sound]);
    return await peakOf(['align', '--script', words, '--audio', sound, '--json']);
  } finally {
    rmSync(scratch, { recursive: true, force: true });
  }
}

/** Sentences found in recordings put together from known pieces. */
export async function speech(): Promise<Result[]> {
  const rows: Result[] = [];
  for (const kind of speechKinds) rows.push(await spoken(kind));
  const proof = makeSpeech(LONG);
  const minutes = proof.samples.length / proof.rate / 60;
  const cpu = await cpuOf(() => alignScript(proof.script, proof.samples, 'en'));
  const mb = await alignedIn(proof);
  const each = cpu / 1_000 / minutes;
  rows.push(await spoken(LONG));
  rows.push({
    what: `memory and processor for ${minutes.toFixed(0)} min`,
    value: `zest align is ${mb.toFixed(0)} MB at most, ${each.toFixed(1)} s a minute`,
    limit: `at most ${MOST_MB} MB and ${MOST_CPU_S} s`,
    holds: mb <= MOST_MB && each <= MOST_CPU_S,
  });
  return rows;
}
