import { LIMITS, makeCue, type Block } from '../lesson/index.ts';
import { teacherLanguage, teacherLocale, teacherText, type TeacherWord } from '../words/index.ts';
import type { Answers } from './answers.ts';
import type { Pieces } from './pieces.ts';

/** Something a pattern asks before it is a lesson. */
export interface Question {
  id: string;
  ask: TeacherWord;
  /** One thing, several with commas between them, a number, or a length. */
  kind: 'text' | 'list' | 'count' | 'length';
  /** What is meant where nothing else is written. */
  usual: () => string;
}

type PatternId =
  'skill' | 'intervals' | 'circuit' | 'dance' | 'growing' | 'challenge' | 'quiz' | 'structured';

/** The sections of a lesson: names, and their blocks. */
export type Plan = [name: string, blocks: Block[]][];

export interface Pattern {
  id: PatternId;
  /** At most five, how long the video is among them. */
  questions: readonly Question[];
  /** What the lesson is called. */
  title: (answers: Answers) => string;
  outcome: (answers: Answers) => string;
  /** @param scale how much longer than the usual the lesson is */
  plan: (answers: Answers, pieces: Pieces, scale: number) => Plan;
}

export const minutes = (usual: number): Question => ({
  ...{ id: 'minutes', ask: 'ask.minutes', kind: 'count' },
  usual: () => String(usual),
});

/** Things in a row as they are said: "a, b and c". */
export const sentence = (things: readonly string[]): string =>
  new Intl.ListFormat(teacherLocale()).format(things);

/** A name within a sentence; German keeps the capitals of its nouns. */
export const within = (name: string): string =>
  teacherLanguage() === 'de' ? name : name.toLowerCase();

export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** A number made so many times as large, whole, from one to the most a block takes. */
export const times = (n: number, scale: number): number =>
  Math.min(LIMITS.demoTimes.max, Math.max(1, Math.round(n * scale)));

/** Slow breaths on one leg, then the other. */
export const coolDown = ({ block, move, makeId }: Pieces): Block =>
  block('hold', teacherText('pattern.balance-and-breathe'), {
    effort: 1,
    exercise: move('balance'),
    by: 'breaths',
    breaths: 3,
    cues: [makeCue(teacherText('pattern.look-at-one-point'), makeId)],
    cautions: [teacherText('pattern.hand-near')],
    part: 'cool-down',
  });

/** Gentle moves on the beat before anything else. */
const warmUp = ({ block, exercise }: Pieces, title: string, names: readonly string[]) =>
  block('counts', title, {
    effort: 2,
    bpm: 100,
    moves: names.map((name) => ({ ...exercise(name), eights: 2 })),
    times: 2,
    part: 'warm-up',
  });

interface Frame {
  hello: string;
  kit?: readonly string[];
  /** What more to see to on the floor. */
  space?: string;
  warmUp?: { title?: string; moves?: readonly string[] };
  bye: string;
}

/** What most lessons begin and end with, around what they are about. */
export const framed = (pieces: Pieces, frame: Frame, middle: Plan): Plan => [
  [
    teacherText('pattern.arrive'),
    [pieces.hello(frame.hello), ...pieces.kit(frame.kit ?? []), pieces.space(frame.space)],
  ],
  [
    teacherText('pattern.warm-up'),
    [
      warmUp(
        pieces,
        frame.warmUp?.title ?? teacherText('pattern.warm-up-beat'),
        frame.warmUp?.moves ?? [
          teacherText('pattern.march'),
          teacherText('pattern.step-and-reach'),
        ],
      ),
    ],
  ],
  ...middle,
  [teacherText('pattern.cool-down'), [coolDown(pieces), pieces.bye(frame.bye)]],
];
