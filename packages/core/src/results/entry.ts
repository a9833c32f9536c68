import type { Side, WeekLevel } from '../lesson/index.ts';
import { seenPart, type SeenStretch } from './seen.ts';

/** What a number is: how many, how long, what the targets gave, how many in a row. */
export const measures = ['count', 'time', 'points', 'streak'] as const;
export type Measure = (typeof measures)[number];

export const skipReasons = [
  'too hard',
  'too easy',
  'it hurts',
  'no space',
  'no kit',
  'no time',
  'another reason',
] as const;
export type SkipReason = (typeof skipReasons)[number];

/** Effort as the student felt it: 1 very easy to 5 very hard. */
export const EFFORTS = [1, 2, 3, 4, 5] as const;

/** A number a student reached: how many, seconds, points. */
export interface Score {
  kind: 'score';
  blockId: string;
  /** The same exercise measured the same way, in whichever lesson. */
  key: string;
  title: string;
  measure: Measure;
  /** Whether more or less of it is better. */
  better: 'more' | 'less';
  value: number;
  side: Side | null;
  level: WeekLevel;
  /** How long it went on, in seconds; null when it went on until it was done. */
  seconds: number | null;
}

/** One thing that happened with a lesson. */
export type EntryBody =
  | { kind: 'opened' }
  /**
   * How far of the video, and which stretches of it were played, in milliseconds; one a visit,
   * which grows.
   */
  | { kind: 'reached'; atMs: number; totalMs: number; seen?: SeenStretch[] | undefined }
  | Score
  /** In words, or by choices: their texts, and whether they are all that is right. */
  | {
      kind: 'answer';
      blockId: string;
      question: string;
      text: string;
      choices?: string[] | undefined;
      isRight?: boolean | undefined;
    }
  | { kind: 'effort'; value: number }
  | { kind: 'skipped'; blockId: string; title: string; reason: SkipReason }
  | { kind: 'replayed'; blockId: string; title: string }
  /** The student's own practice after a pause sign. */
  | { kind: 'practised'; blockId: string; ms: number }
  /** The teacher's word that a criterion of a credit level is met. */
  | { kind: 'signed'; levelId: string; criterionId: string };

export type EntryKind = EntryBody['kind'];

/** An entry of the log: whose, of which lesson, when (milliseconds since 1970, UTC). */
export interface LogEntry {
  id: string;
  studentId: string;
  /** Null when it belongs to no lesson. */
  lessonId: string | null;
  at: number;
  by: 'student' | 'teacher';
  body: EntryBody;
}

export type EntryOf<K extends EntryKind> = LogEntry & { body: Extract<EntryBody, { kind: K }> };
export const isOf =
  <K extends EntryKind>(kind: K) =>
  (entry: LogEntry): entry is EntryOf<K> =>
    entry.body.kind === kind;

/** Opening a page is not yet doing something. */
export const isDoing = ({ body }: LogEntry): boolean =>
  body.kind === 'score' ||
  body.kind === 'practised' ||
  body.kind === 'answer' ||
  (body.kind === 'reached' && seenPart(body) >= 0.5);
