import { readFile } from 'node:fs/promises';
import { SURE_SENTENCE } from '@zest/core/signal';
import { sentencesOf } from '@zest/core/script';
import { lengthText } from '@zest/core/time';
import { alignScript, soundOf, SPEECH_RATE } from '../media/speech.ts';
import { ProgramError } from '../media/run.ts';

/** A line that ends like this ends a sentence. */
const ENDS = /[.!?…:;"”')\]]\s*$/;

/**
 * The sentences of a script file. A line each; prose that is wrapped, whose lines do not end where
 * sentences do, or that stands in one line, is cut into its sentences.
 */
export function scriptSentences(text: string): string[] {
  const lines = text
    .split(/\r?\n/)
    .map((line) => line.trim())
    .filter((line) => line !== '');
  const wrapped = lines.filter((line, i) => i < lines.length - 1 && !ENDS.test(line)).length;
  if (lines.length > 1 && wrapped < lines.length / 3) return lines;
  return lines.length > 1 && !lines.some((line) => ENDS.test(line))
    ? lines
    : sentencesOf(lines.join(' '));
}

/**
 * Where the sentences of a script are said in a recording, as JSON (see docs/cli.md) or as lines.
 * @throws with words
 */
export async function align(
  { script, audio, language }: { script: string; audio: string; language: string },
  asJson: boolean,
): Promise<string> {
  const text = await readFile(script, 'utf8').catch(() => {
    throw new Error(`There is no script ${script}. Name a text file with a sentence a line.`);
  });
  const sentences = scriptSentences(text);
  if (sentences.length === 0) throw new Error(`${script} holds no sentence. Write one a line.`);
  let samples: Float32Array;
  try {
    samples = await soundOf(audio, SPEECH_RATE);
  } catch (error) {
    if (error instanceof ProgramError)
      throw new Error(
        `${audio} cannot be read as sound: ${error.lastWords}. Name a recording that plays.`,
      );
    throw error;
  }
  if (samples.length === 0) throw new Error(`${audio} holds no sound.`);
  const { sentences: said, added } = await alignScript(sentences, samples, language);
  if (asJson) {
    return JSON.stringify(
      {
        sentences: said.map((one, index) => ({
          index,
          startMs: one?.startMs ?? null,
          endMs: one?.endMs ?? null,
          confidence: one?.confidence ?? null,
          text: sentences[index],
        })),
        added,
      },
      null,
      2,
    );
  }
  return [
    ...said.map((one, i) => {
      const doubt = one && one.confidence < SURE_SENTENCE ? ' (not sure)' : '';
      const place = one ? `${lengthText(one.startMs)} to ${lengthText(one.endMs)}` : 'left out';
      return `${place}${doubt}: ${sentences[i] ?? ''}`;
    }),
    ...added.map(
      ({ startMs, endMs }) =>
        `${lengthText(startMs)} to ${lengthText(endMs)}: words that are not in the script`,
    ),
  ].join('\n');
}
