import { readFile } from 'node:fs/promises';
import { readLesson } from '@zest/core/lesson';
import { runSheet, runSheetText, scheduleLesson } from '@zest/core/schedule';
import { clockText } from '@zest/core/time';

/** The run sheet of a lesson file as text or JSON. @throws LessonError with the places that are wrong */
export async function plan(file: string, asJson: boolean): Promise<string> {
  const text = await readFile(file, 'utf8').catch((error: NodeJS.ErrnoException) => {
    throw new Error(error.code === 'ENOENT' ? `There is no file ${file}.` : `${file} cannot be read: ${error.message}`);
  });
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    throw new Error(`${file} is not a lesson file: it is not JSON.`);
  }
  const lesson = readLesson(raw);
  const schedule = scheduleLesson(lesson);
  const lines = runSheet(schedule);
  if (asJson) {
    return JSON.stringify({ title: lesson.title, videoMs: schedule.videoMs, studentMs: schedule.studentMs, lines }, null, 2);
  }
  return [
    lesson.title,
    `video ${clockText(schedule.videoMs)}, student ${clockText(schedule.studentMs)}`,
    '',
    '  video  student',
    runSheetText(lines),
  ].join('\n');
}
