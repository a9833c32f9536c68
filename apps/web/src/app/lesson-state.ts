import type { EditedLesson, Lesson } from '@zest/core/lesson';

/** How the window's lesson stands to the server's. */
export type SaveState =
  | { kind: 'saved' }
  | { kind: 'unsaved' }
  | { kind: 'saving' }
  /** Somebody saved a newer revision meanwhile. */
  | { kind: 'stale'; revision: number }
  | { kind: 'failed'; message: string };

interface OpenLesson {
  id: string;
  /** The revision this window's changes started from. */
  revision: number;
  edited: EditedLesson;
  /** The lesson as the server has it at `revision`. */
  stored: Lesson;
  save: SaveState;
}

export interface LessonState {
  open: OpenLesson | null;
}
