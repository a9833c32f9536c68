import { mkdir, rename, stat } from 'node:fs/promises';
import path from 'node:path';
import { nanoid } from 'nanoid';
import { run } from './run.ts';
import { hashOf } from './store.ts';

/** Quicker than reading aloud: a count has to be over before the next one. */
const WORDS_A_MINUTE = 190;
/** espeak-ng's names of voices that are called otherwise. */
const VOICES: Readonly<Record<string, string>> = { en: 'en-gb', pt: 'pt-pt' };

/**
 * Words spoken by espeak-ng as a WAV file, made once and kept.
 * @param language BCP 47 tag of a language counts are called in
 * @returns the file's path
 */
export async function spokenFile(folder: string, language: string, words: string): Promise<string> {
  const file = path.join(folder, `${hashOf([language, words, WORDS_A_MINUTE])}.wav`);
  if (await stat(file).catch(() => null)) return file;
  await mkdir(folder, { recursive: true, mode: 0o700 });
  // Written beside its name first: a half file never carries it.
  const part = `${file}.${nanoid(6)}`;
  await run(
    'espeak-ng',
    ['-v', VOICES[language] ?? language, '-s', String(WORDS_A_MINUTE), '-w', part, '--', words],
    { stallMs: 20_000 },
  );
  await rename(part, file);
  return file;
}
