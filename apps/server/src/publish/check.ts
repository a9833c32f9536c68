import { checkLesson, type Finding } from '@zest/core/checks';
import type { Lesson } from '@zest/core/lesson';
import { nanoid } from 'nanoid';
import type { TakeRow } from '../db/models.ts';
import type { MediaStore } from '../media/store.ts';
import { cutWith, factsOf } from './cut.ts';

/** Everything the check finds in a lesson and its takes. */
export async function checkOf(lesson: Lesson, takes: readonly TakeRow[], store: MediaStore): Promise<Finding[]> {
  return checkLesson({ lesson, cut: (await cutWith(lesson, takes, store)).assembly, takes: await factsOf(takes, store), makeId: nanoid });
}
