import type { LessonEdit } from '../lesson/index.ts';

/** What a student would suffer. */
export const harms = [
  'gets hurt',
  'gets lost',
  'cannot see it',
  'cannot hear it or read along',
  'runs out of time',
  'is named',
] as const;
export type Harm = (typeof harms)[number];

/** What each harm is called where teachers read it. */
export const harmNames: Record<Harm, string> = {
  'gets hurt': 'A student could get hurt',
  'gets lost': 'A student could get lost',
  'cannot see it': 'A student could not see it',
  'cannot hear it or read along': 'A student could not hear it or read along',
  'runs out of time': 'Time runs out',
  'is named': 'Names and rights',
};

/** The bench at which a finding is put right by hand. */
export type BenchName = 'plan' | 'script' | 'film' | 'assemble' | 'share';

/** One thing that is not as it should be. */
export interface Finding {
  /** Rule and place: the same finding has the same key until it is gone. */
  key: string;
  harm: Harm;
  /** The block it lies in; null: the whole lesson. */
  blockId: string | null;
  /** Where in the finished video, in milliseconds; null when it has no moment. */
  atMs: number | null;
  /** What is wrong, with its figure, as a sentence. */
  say: string;
  /** Why it matters, and who says so. */
  why: string;
  bench: BenchName;
  /** What one click does about it; null when only the teacher can. */
  remedy: { label: string; change: LessonEdit } | null;
  /** The teacher's word for leaving it so; null while it is open. */
  waived: string | null;
}

/** A block by its title, as findings name it. */
export const quoted = (block: { title: string } | null | undefined): string =>
  `“${block?.title || 'Untitled'}”`;

export const COUNT_WHY =
  'A count that is not what is seen makes children stop or go on at the wrong moment (common practice).';

export type Found = Omit<Finding, 'waived'>;
