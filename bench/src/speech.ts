import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { makeSpeech, speechKinds, type SpeechKind } from '@zest/demo/proof';
import { ffmpeg } from '../../apps/server/src/media/ffmpeg.ts';
import { alignScript } from '../../apps/server/src/media/speech.ts';
import { cpuOf } from './cpu.ts';
import { peakOf } from './peak.ts';
import { share, type Result } from './result.ts';

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
