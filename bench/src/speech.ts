import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { SURE_SENTENCE, type Alignment } from '@zest/core/signal';
import {
  makeSpeech,
  scriptFromElsewhere,
  speechKinds,
  type SpeechKind,
  type SpokenProof,
} from '@zest/demo/proof';
import { ffmpeg } from '../../apps/server/src/media/ffmpeg.ts';
import { alignScript } from '../../apps/server/src/media/speech.ts';
import { cpuOf } from './cpu.ts';
import { peakOf } from './peak.ts';
import { share, type Result } from './result.ts';

/** Part of the sentences that must be found, and how near to where they begin. */
function wantedOf(kind: SpeechKind): { part: number; ms: number } {
  if (kind.reworded > 0 || (kind.noiseDb !== null && kind.noiseDb <= 10))
    return { part: 0.95, ms: 500 };
  const isCrowded = kind.childrenDb !== null || kind.add > 0.3;
  if (isCrowded && kind.hall) return { part: 0.85, ms: 300 };
  return { part: isCrowded || kind.musicDb !== null ? 0.95 : 0.99, ms: 300 };
}

/** Found further than this from where it begins, a sentence was not found. */
const ELSEWHERE_MS = 500;

interface Trust {
  right: number;
  unsure: number;
  wrongSure: number;
}
type Found = Alignment['sentences'];
const isSure = (one: Found[number] | undefined) => (one?.confidence ?? 0) >= SURE_SENTENCE;

/** How sure it is of what is right and what is not, of another script too. */
async function trustOf({ said, script, samples }: SpokenProof, found: Found): Promise<Trust> {
  const isRight = said.map((one, i) => {
    const sentence = found[i];
    return one && sentence ? Math.abs(sentence.startMs - one.startMs) <= ELSEWHERE_MS : false;
  });
  const other = await alignScript(scriptFromElsewhere(script.length, script.length), samples, 'en');
  return {
    right: isRight.filter(Boolean).length,
    unsure: isRight.filter((right, i) => right && !isSure(found[i])).length,
    wrongSure:
      isRight.filter((right, i) => !right && isSure(found[i])).length +
      other.sentences.filter(isSure).length,
  };
}

const percent = (part: number) => `${(part * 100).toFixed(1)} %`;

async function spoken(kind: SpeechKind): Promise<{ result: Result; trust: Trust }> {
  const proof = makeSpeech(kind);
  let found: Alignment = { sentences: [], added: [] };
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
  const trust = await trustOf(proof, found.sentences);
  const wanted = wantedOf(kind);
  // In the clear what was left out and added must be found as well.
  const isTold =
    skipsFound === skips &&
    addedFound >= 0.9 * proof.added.length &&
    falselyAdded <= Math.max(1, Math.ceil(minutes / 10));
  return {
    trust,
    result: {
      what: `${kind.name}: ${minutes.toFixed(1)} min, ${said} sentences`,
      value:
        `${percent(within(150))} within 0.15 s, ${percent(within(300))} within 0.3 s, ` +
        `${percent(within(500))} within 0.5 s; left out ${skipsFound} of ${skips}, added ` +
        `${addedFound} of ${proof.added.length}, ${falselyAdded} falsely; not sure of ` +
        `${trust.unsure} of ${trust.right}, ${trust.wrongSure} wrong ones sure; ` +
        `${(cpu / 1_000 / minutes).toFixed(1)} s of processor a minute`,
      limit: `${wanted.part * 100} % within ${wanted.ms / 1_000} s`,
      holds: within(wanted.ms) >= wanted.part && (wanted.part < 0.99 || isTold),
    },
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
  childrenDb: null,
  hall: false,
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

/** Part of what is right that it may be unsure of. */
const MOST_UNSURE = 0.1;

/** Sentences found in recordings put together from known pieces. */
export async function speech(): Promise<Result[]> {
  const rows: Result[] = [];
  const trusts: Trust[] = [];
  for (const kind of [...speechKinds, LONG]) {
    const { result, trust } = await spoken(kind);
    rows.push(result);
    trusts.push(trust);
  }
  const sum = (of: keyof Trust) => trusts.reduce((all, trust) => all + trust[of], 0);
  const unsure = share(sum('unsure'), sum('right'));
  rows.push({
    what: `how sure it is, of ${sum('right')} sentences found and of scripts of which nothing is said`,
    value: `not sure of ${percent(unsure)} of what is right, ${sum('wrongSure')} wrong ones sure`,
    limit: `at most ${MOST_UNSURE * 100} %, and none`,
    holds: unsure <= MOST_UNSURE && sum('wrongSure') === 0,
  });
  const proof = makeSpeech(LONG);
  const minutes = proof.samples.length / proof.rate / 60;
  const cpu = await cpuOf(() => alignScript(proof.script, proof.samples, 'en'));
  const mb = await alignedIn(proof);
  const each = cpu / 1_000 / minutes;
  rows.push({
    what: `memory and processor for ${minutes.toFixed(0)} min`,
    value: `zest align is ${mb.toFixed(0)} MB at most, ${each.toFixed(1)} s a minute`,
    limit: `at most ${MOST_MB} MB and ${MOST_CPU_S} s`,
    holds: mb <= MOST_MB && each <= MOST_CPU_S,
  });
  return rows;
}
