import { stat } from 'node:fs/promises';
import {
  findingsIn,
  SURE_REPETITION,
  WHOLE_REPETITION,
  type TakeAnalysis,
} from '@zest/core/signal';
import { lengthText } from '@zest/core/time';
import { watchFile } from '../media/analyse.ts';
import { ProgramError } from '../media/run.ts';

/** Looks at a file the user names. @throws with words when it is missing or unreadable */
async function ofFile<T>(file: string, use: () => Promise<T>): Promise<T> {
  const found = await stat(file).catch(() => null);
  if (!found?.isFile())
    throw new Error(`There is no file ${file}. Name a video, such as clip.mp4.`);
  try {
    return await use();
  } catch (error) {
    if (error instanceof ProgramError)
      throw new Error(
        `${file} cannot be read as a video or sound: ${error.lastWords}. Choose an mp4, ` +
          'mov, webm or mkv file that plays.',
      );
    throw error;
  }
}

/** What is in a clip, as JSON (see docs/cli.md) or as sentences. @throws with words */
export async function analyse(file: string, asJson: boolean): Promise<string> {
  return analysisText(await ofFile(file, () => watchFile(file)), asJson);
}

/** The same of what was watched. */
export function analysisText(watched: TakeAnalysis, asJson: boolean): string {
  const { repetitions, outOfFrame, still, faults, active, isSeen, poseScore, bodyHeight } =
    findingsIn(watched);
  const { durationMs, loudness, sound, speech, flashes } = watched;
  const side = (one: 'left' | 'right' | null) => (one === null ? {} : { side: one });
  if (asJson) {
    return JSON.stringify(
      {
        durationMs,
        repetitions: repetitions.map(({ side: performerSide, size, ...times }) => ({
          ...times,
          ...side(performerSide),
          size,
          isWhole: size >= WHOLE_REPETITION,
        })),
        outOfFrame,
        still,
        loudness: {
          integratedLufs: loudness.integratedLufs,
          truePeakDbtp: loudness.truePeakDb,
          shortTermLufs: loudness.shortTermLufs,
        },
        performer: {
          isSeen,
          score: poseScore,
          heightOfPicture: bodyHeight === null ? null : Math.round(bodyHeight * 1_000) / 1_000,
        },
        active,
        picture: faults,
        sound,
        speech,
        flashes,
      },
      null,
      2,
    );
  }
  const unsure = repetitions.filter(({ confidence }) => confidence < SURE_REPETITION).length;
  return [
    `${lengthText(durationMs)} of footage. ${isSeen ? '' : 'Nobody is seen in it.'}`.trim(),
    `${repetitions.length} repetitions${unsure > 0 ? `, not sure of ${unsure}` : ''}.`,
    ...outOfFrame.map(
      ({ startMs, endMs, edges }) =>
        `Out of the picture (${edges.join(', ')}) from ${lengthText(startMs)} to ${lengthText(endMs)}.`,
    ),
    ...faults.map(
      ({ fault, startMs, endMs }) => `${fault}: ${lengthText(startMs)} to ${lengthText(endMs)}.`,
    ),
    ...(sound?.faults ?? []).map(
      ({ fault, startMs, endMs }) => `${fault}: ${lengthText(startMs)} to ${lengthText(endMs)}.`,
    ),
    loudness.integratedLufs === null
      ? 'No sound.'
      : `${loudness.integratedLufs} LUFS, true peak ${loudness.truePeakDb ?? '-'} dBTP.`,
  ].join('\n');
}
