import { choiceText, type Block, type Lesson } from '@zest/core/lesson';
import {
  DAY_MS,
  scorePrompts,
  usualRule,
  type CreditLevel,
  type EntryBody,
  type Score,
  type StepRule,
} from '@zest/core/results';
import { scheduleLesson, seededChance } from '@zest/core/schedule';

/** Measured by the teacher in the hall every week. */
const ROPE = {
  key: 'rope skipping | rope skipping | count',
  title: 'Rope skipping',
  measure: 'count',
  better: 'more',
  seconds: 30,
} as const satisfies Partial<Score>;

interface DemoClass {
  plan: { name: string; keepWeeks: number; rule: StepRule; credits: CreditLevel[] };
  nicknames: readonly string[];
  /** Days after the first of a week on which most follow the lesson. */
  day: number;
  /** What a usual number is multiplied by. */
  skill: number;
}

/** Two groups of the club: one that goes on well, and a smaller, younger one. */
export const demoClasses: readonly DemoClass[] = [
  {
    plan: {
      name: 'Tuesday otters',
      keepWeeks: 40,
      rule: usualRule,
      credits: [
        {
          id: 'blue-rope',
          name: 'Blue rope',
          criteria: [
            {
              id: 'thirty',
              text: '40 skips in 30 s',
              measured: { key: ROPE.key, atLeast: 40 },
            },
            {
              id: 'own-rhythm',
              text: 'Skips in their own rhythm for half a minute',
              measured: null,
            },
            { id: 'lands-softly', text: 'Lands softly, knees over feet', measured: null },
          ],
        },
      ],
    },
    nicknames: [
      'amber finch',
      'brisk willow',
      'calm puffin',
      'early lantern',
      'gentle rook',
      'hazel comet',
      'jolly buoy',
      'misty otter',
      'silver heron',
      'tidal wren',
    ],
    ...{ day: 1, skill: 1 },
  },
  {
    plan: { name: 'Friday herons', keepWeeks: 40, rule: usualRule, credits: [] },
    nicknames: [
      'cosy limpet',
      'dapper gull',
      'fern skiff',
      'lively pebble',
      'quiet ember',
      'rosy anchor',
      'sandy lark',
      'windy plover',
    ],
    ...{ day: 4, skill: 0.75 },
  },
];

/** A week's lesson, and when its week begins. */
interface DemoWeek {
  id: string;
  lesson: Lesson;
  startsAt: number;
}

interface DemoEntry {
  student: number;
  /** Null for what was measured in the hall. */
  lessonId: string | null;
  by: 'student' | 'teacher';
  at: number;
  body: EntryBody;
}

/** Who cannot yet do it as shown begins with the easier form. */
const levelOf = (student: number, week: number) =>
  student % 4 === 3 && week < 3 ? 'easier' : 'standard';

/** How much a student makes of what is usual: more each week, on some days less. */
const skillOf = (student: number, week: number, chance: () => number) =>
  0.7 + (student % 5) * 0.12 + week * 0.06 + chance() * 0.15;

/** One of the choices, the first ones more often; without choices some words. */
function answersTo(blocks: readonly Block[], chance: () => number): EntryBody[] {
  const block = blocks.find(({ kind }) => kind === 'question');
  if (block?.kind !== 'question') return [];
  const { id: blockId, question, choices = [] } = block;
  const at = Math.floor(chance() ** 2 * choices.length);
  const taken = choices[at];
  return [
    {
      ...{ kind: 'answer', blockId, question },
      text: taken ? choiceText(taken, at) : 'The foot across from my arm',
      ...(taken && { choices: [taken.text], isRight: taken.isRight }),
    },
  ];
}

const isWork = ({ kind }: Block) => kind === 'intervals';

/**
 * What one student brought home of one lesson. Made up: better from week to week for most, and not
 * everybody every week.
 */
function visit(
  lesson: Lesson,
  student: number,
  week: number,
  most: number,
  chance: () => number,
): EntryBody[] {
  const { videoMs } = scheduleLesson(lesson);
  const bodies: EntryBody[] = [{ kind: 'opened' }];
  const isWhole = chance() < 0.8;
  bodies.push({
    kind: 'reached',
    atMs: Math.round(videoMs * (isWhole ? 1 : 0.3 + chance() * 0.4)),
    totalMs: videoMs,
  });
  for (const { blockId, key, title, measure, better, seconds, sides } of scorePrompts(lesson)) {
    const skill = most * skillOf(student, week, chance);
    const usual = measure === 'count' ? (seconds ?? 20) * 1.1 : measure === 'points' ? 14 : 18;
    for (const side of sides.length > 0 ? sides : [null]) {
      const value = Math.max(
        1,
        Math.round(usual * (better === 'more' ? skill : 1.6 - skill) * (side === 'left' ? 0.9 : 1)),
      );
      bodies.push({
        kind: 'score',
        blockId,
        key,
        title,
        measure,
        better,
        value,
        side,
        level: levelOf(student, week),
        seconds,
      });
    }
  }
  const blocks = lesson.sections.flatMap((section) => section.blocks);
  const hard = blocks.find(({ kind }) => kind === 'hold') ?? blocks.find(isWork);
  if (hard && [1, 2].includes(student % 5))
    bodies.push({ kind: 'skipped', blockId: hard.id, title: hard.title, reason: 'too hard' });
  const work = blocks.find(isWork);
  if (work && week === 1 && student === 4)
    bodies.push({ kind: 'skipped', blockId: work.id, title: work.title, reason: 'it hurts' });
  if (chance() < 0.6) bodies.push(...answersTo(blocks, chance));
  if (chance() < 0.9) bodies.push({ kind: 'effort', value: 2 + Math.floor(chance() * 3) });
  return bodies;
}

/**
 * A class's log up to `now`: what came back of each week's lesson, and a test in the hall. The same
 * every time but for the days.
 */
export function demoEntries(
  { nicknames, day, skill }: DemoClass,
  weeks: readonly DemoWeek[],
  now: number,
): DemoEntry[] {
  const chance = seededChance(2_611 + day);
  const entries = weeks.flatMap(({ id: lessonId, lesson, startsAt }, week) =>
    nicknames.flatMap((_, student): DemoEntry[] => {
      // The last two drop out, one after the other: somebody is to be asked after.
      if (student >= nicknames.length - Math.max(0, week - 3)) return [];
      // Not everybody every week, and some only look.
      const [followed, looked, tested] = [chance() < 0.8, chance() < 0.6, chance() < 0.8];
      const at = startsAt + day * DAY_MS + Math.floor(chance() * DAY_MS);
      const opened: EntryBody[] = looked ? [{ kind: 'opened' }] : [];
      const bodies = followed ? visit(lesson, student, week, skill, chance) : opened;
      const test: EntryBody = {
        ...{ kind: 'score', ...ROPE, blockId: 'hall', side: null, level: levelOf(student, week) },
        value: Math.round(ROPE.seconds * 1.1 * skill * skillOf(student, week, chance)),
      };
      return [
        ...bodies.map((body, i) => ({
          ...{ student, lessonId, body },
          ...{ at: at + i * 1_000, by: 'student' as const },
        })),
        ...(followed && tested
          ? [{ student, lessonId: null, at: at + DAY_MS, by: 'teacher' as const, body: test }]
          : []),
      ];
    }),
  );
  return entries.filter(({ at }) => at <= now);
}
