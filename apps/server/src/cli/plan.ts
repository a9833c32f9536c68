import { readFile } from 'node:fs/promises';
import { ledgersOf } from '@zest/core/ledger';
import { figureChangeText, readLesson, type Lesson } from '@zest/core/lesson';
import { fitLesson, fitTitle, runSheet, runSheetText, scheduleLesson } from '@zest/core/schedule';
import { clockText } from '@zest/core/time';

/**
 * Reads a lesson file.
 * @throws LessonError with the places that are wrong; Error when it is no such file
 */
async function readLessonFile(file: string): Promise<Lesson> {
  const text = await readFile(file, 'utf8').catch((error: NodeJS.ErrnoException) => {
    throw new Error(
      error.code === 'ENOENT'
        ? `There is no file ${file}.`
        : `${file} cannot be read: ${error.message}`,
    );
  });
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    throw new Error(`${file} is not a lesson file: it is not JSON.`);
  }
  return readLesson(raw);
}

const asText = (value: unknown) => JSON.stringify(value, null, 2);

/** The run sheet of a lesson file as text, or with totals and ledgers as JSON. */
export async function plan(file: string, asJson: boolean): Promise<string> {
  const lesson = await readLessonFile(file);
  const schedule = scheduleLesson(lesson);
  const lines = runSheet(schedule, lesson.settings.language);
  if (asJson) {
    const { videoMs, studentMs } = schedule;
    const { curve, advice, missing, ...ledgers } = ledgersOf(lesson, schedule);
    return asText({
      title: lesson.title,
      videoMs,
      studentMs,
      ledgers: {
        ...ledgers,
        effort: { ...curve, advice },
        missingParts: missing,
      },
      lines,
    });
  }
  return [
    lesson.title,
    `video ${clockText(schedule.videoMs)}, student ${clockText(schedule.studentMs)}`,
    '',
    '  video  student',
    runSheetText(lines),
  ].join('\n');
}

/** Targets given on the command line, in milliseconds; each takes the place of the lesson's own. */
export interface FitTargets {
  videoMs?: number | undefined;
  sessionMs?: number | undefined;
}

/** The tolerance of a target that the lesson has none for. */
const TOLERANCE_MS = 15_000;

/** The smallest change that brings a lesson file into its targets, as text or JSON. */
export async function fit(file: string, targets: FitTargets, asJson: boolean): Promise<string> {
  const lesson = await readLessonFile(file);
  const { video, session } = lesson.targets;
  const targetOf = (ms: number | undefined, known: typeof video) =>
    ms === undefined ? known : { ms, toleranceMs: known?.toleranceMs ?? TOLERANCE_MS };
  const result = fitLesson({
    ...lesson,
    targets: {
      video: targetOf(targets.videoMs, video),
      session: targetOf(targets.sessionMs, session),
    },
  });
  if (asJson) return asText(result);
  const { changes, videoMs, sessionMs } = result.proposal;
  const head =
    changes.length === 0
      ? result.kind === 'fits'
        ? 'It fits as it is.'
        : 'Nothing that may be changed brings it nearer.'
      : fitTitle(result);
  return [
    ...result.obstacles,
    head,
    ...changes.map((change) => `  ${figureChangeText(change)}`),
    `video ${clockText(videoMs)}, student ${clockText(sessionMs)}`,
  ].join('\n');
}
