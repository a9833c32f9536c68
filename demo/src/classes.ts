import { choiceText, type Block, type Lesson } from '@zest/core/lesson';
import { scorePrompts, usualRule, type EntryBody, type StepRule } from '@zest/core/results';
import { scheduleLesson, seededChance } from '@zest/core/schedule';

const DAY_MS = 86_400_000;
const WEEK_MS = 7 * DAY_MS;
const NAMES = [
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
] as const;

export const demoClass = {
  plan: {
    name: 'Tuesday otters',
    keepWeeks: 40,
    rule: usualRule satisfies StepRule,
    credits: [
      {
        id: 'blue-rope',
        name: 'Blue rope',
        criteria: [
          { id: 'own-rhythm', text: 'Skips in their own rhythm for half a minute', measured: null },
          { id: 'lands-softly', text: 'Lands softly, knees over feet', measured: null },
        ],
      },
    ],
  },
  nicknames: NAMES,
} as const;

interface DemoEntry {
  student: number;
  lessonId: string;
  at: number;
  body: EntryBody;
}

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

/**
 * What one student brought home of one lesson. Made up: better from week to week for most, and not
 * everybody every week.
 */
function visit(lesson: Lesson, student: number, week: number, chance: () => number): EntryBody[] {
  const { videoMs } = scheduleLesson(lesson);
  const bodies: EntryBody[] = [{ kind: 'opened' }];
  const isWhole = chance() < 0.8;
  bodies.push({
    kind: 'reached',
    atMs: Math.round(videoMs * (isWhole ? 1 : 0.3 + chance() * 0.4)),
    totalMs: videoMs,
  });
  for (const { blockId, key, title, measure, better, seconds, sides } of scorePrompts(lesson)) {
    const skill = 0.7 + (student % 5) * 0.12 + week * 0.06 + chance() * 0.15;
    const most = measure === 'count' ? (seconds ?? 20) * 1.1 : measure === 'points' ? 14 : 18;
    for (const side of sides.length > 0 ? sides : [null]) {
      const value = Math.max(
        1,
        Math.round(most * (better === 'more' ? skill : 1.6 - skill) * (side === 'left' ? 0.9 : 1)),
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
        level: student % 4 === 3 ? 'easier' : 'standard',
        seconds,
      });
    }
  }
  const blocks = lesson.sections.flatMap((section) => section.blocks);
  const hard = blocks.find(({ kind }) => kind === 'hold');
  if (hard && student % 3 === 1)
    bodies.push({ kind: 'skipped', blockId: hard.id, title: hard.title, reason: 'too hard' });
  if (chance() < 0.6) bodies.push(...answersTo(blocks, chance));
  if (chance() < 0.9) bodies.push({ kind: 'effort', value: 2 + Math.floor(chance() * 3) });
  return bodies;
}

/**
 * The class's log up to `now`: its lessons a week apart, the last one this week. The same every
 * time but for the days.
 */
export function demoEntries(
  lessons: readonly { id: string; lesson: Lesson }[],
  now: number,
): DemoEntry[] {
  const chance = seededChance(2_611);
  return lessons.flatMap(({ id: lessonId, lesson }, week) =>
    NAMES.flatMap((_, student) => {
      // The last two drop out, one after the other: the praise list has somebody to ask after.
      if (student >= NAMES.length - week) return [];
      const at = now - (lessons.length - 1 - week) * WEEK_MS - Math.floor(chance() * DAY_MS);
      return visit(lesson, student, week, chance).map((body, i) => ({
        student,
        lessonId,
        at: at + i * 1_000,
        body,
      }));
    }),
  );
}
