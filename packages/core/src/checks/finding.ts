import type { LessonEdit } from '../lesson/index.ts';
import { isTeacherWord, teacherText, type Figures, type TeacherWord } from '../words/index.ts';
import type { SeenAt } from './seen-at.ts';

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

const harmWords: Record<Harm, TeacherWord> = {
  'gets hurt': 'harm.gets-hurt',
  'gets lost': 'harm.gets-lost',
  'cannot see it': 'harm.cannot-see-it',
  'cannot hear it or read along': 'harm.cannot-hear-it',
  'runs out of time': 'harm.runs-out-of-time',
  'is named': 'harm.is-named',
};
/** What a harm is called where teachers read it. */
export const harmName = (harm: Harm): string => teacherText(harmWords[harm]);

/** The bench at which a finding is put right by hand. */
export type BenchName = 'plan' | 'script' | 'film' | 'assemble' | 'share';

/** A rule found broken in one place. */
export interface Hit {
  /** With the rule it tells the finding from all others, until it is gone. */
  place: readonly string[];
  /** The block it lies in; null: the whole lesson. */
  blockId: string | null;
  /** Where in the finished video, in milliseconds; null or left out when it has no moment. */
  atMs?: number | null;
  /** What its words are made with. */
  figures?: Figures;
  /** What one click does about it; left out when only the teacher can. */
  remedy?: { change: LessonEdit } | null;
  /** Where it is not the rule's own. */
  harm?: Harm;
  bench?: BenchName;
  source?: string;
  seenAt?: readonly SeenAt[];
}

/** One thing that is not as it should be; `findingWords` says it. */
export interface Finding {
  rule: string;
  /** Rule and place: the same finding has the same key until it is gone. */
  key: string;
  harm: Harm;
  bench: BenchName;
  /** Who says that it matters; null: the teacher, or plain sense. */
  source: string | null;
  blockId: string | null;
  atMs: number | null;
  figures: Figures;
  /** Where on screen it is seen; empty where nothing shows it. */
  seenAt: readonly SeenAt[];
  remedy: { change: LessonEdit } | null;
  /** The teacher's reason for ignoring it; null while it is open. */
  waived: string | null;
}

/** Usual among teachers, and theirs to see otherwise. */
export const COMMON = 'common practice';

/** Longer keys are cut: they are stored with the teacher's word. */
const LONGEST_KEY = 200;

/** The key of a hit, as it is stored with a lesson whose teacher left it so. */
export const keyOf = (rule: string, place: readonly string[]): string =>
  [rule.replaceAll('-', ' '), ...place].join(' ').slice(0, LONGEST_KEY);

/** A finding in words: what is wrong, with its figure; why it matters; what a click does about it. */
export interface FindingWords {
  say: string;
  why: string;
  /** Null where only the teacher can do something. */
  remedy: string | null;
}

export function findingWords({ rule, figures, source, remedy }: Finding): FindingWords {
  const text = (part: string): string => {
    const word = `check.${rule}.${part}`;
    return isTeacherWord(word) ? teacherText(word, figures) : '';
  };
  const why = source === null ? text('why') : `${text('why').replace(/\.$/, '')} (${source}).`;
  return {
    say: text('say'),
    why: `${why} ${text('do')}`.trim(),
    remedy: remedy && text('remedy'),
  };
}
