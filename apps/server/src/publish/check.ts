import { checkLesson, type Finding } from '@zest/core/checks';
import type { Lesson } from '@zest/core/lesson';
import { nanoid } from 'nanoid';
import type { TakeRow } from '../db/models.ts';
import type { MediaStore } from '../media/store.ts';
import { cutWith } from '../cut/cut.ts';
import { textMeasure } from './paint.ts';

/** Everything the check finds in a lesson and its takes. */
export async function checkOf(
  lesson: Lesson,
  takes: readonly TakeRow[],
  store: MediaStore,
): Promise<Finding[]> {
  const { assembly, facts } = await cutWith(lesson, takes, store);
  return checkLesson({
    lesson,
    cut: assembly,
    takes: facts,
    makeId: nanoid,
    measure: textMeasure(),
  });
}
