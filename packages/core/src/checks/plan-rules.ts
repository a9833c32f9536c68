import {
  effortAdvice,
  effortCurve,
  fetchPause,
  HARD_FROM,
  kitLedger,
  missingParts,
  sidesLedger,
} from '../ledger/index.ts';
import {
  blocksOf,
  changeBlock,
  insertBefore,
  LIMITS,
  partName,
  type Block,
  type Lesson,
  type LessonPart,
  type MakeId,
} from '../lesson/index.ts';
import type { Schedule } from '../schedule/index.ts';
import { lengthText } from '../time/index.ts';
import { speaking } from '../words/index.ts';
import { quoted, type Found } from './finding.ts';

export interface PlanToCheck {
  lesson: Lesson;
  schedule: Schedule;
  makeId: MakeId;
}

/** Kit that is needed before anybody has said so. */
export function kitInTime({ lesson, schedule, makeId }: PlanToCheck): Found[] {
  return kitLedger(schedule, lesson.settings.language).flatMap((line): Found[] => {
    const { fetchBefore, neededIn, name } = line;
    if (!fetchBefore || !neededIn) return [];
    return [
      {
        key: `kit ${fetchBefore} ${name.toLowerCase()}`,
        harm: 'gets lost',
        blockId: fetchBefore,
        atMs: null,
        say: `${name} is needed in ${quoted(neededIn)} before it is named.`,
        why: 'Students who have to look for something miss what is done meanwhile (common practice).',
        bench: 'plan',
        remedy: {
          label: 'Add a pause to fetch it',
          change: insertBefore(fetchBefore, fetchPause(line, lesson.settings.language, makeId)),
        },
      },
    ];
  });
}

/** Warm-up, hard part and cool-down against the usual guidance. */
export function effortInOrder({ schedule }: PlanToCheck): Found[] {
  const firstHard = schedule.blocks.find(
    ({ block }) => block.effort >= HARD_FROM && block.part !== 'warm-up',
  );
  return effortAdvice(effortCurve(schedule), schedule.studentMs).flatMap(
    ({ holds, text, source }, i): Found[] =>
      holds
        ? []
        : [
            {
              key: `effort ${i}`,
              harm: 'gets hurt',
              blockId: firstHard?.block.id ?? null,
              atMs: null,
              say: text,
              why: `${source}. You may disagree.`,
              bench: 'plan',
              remedy: null,
            },
          ],
  );
}

const OVERHEAD_WHY =
  'Jumps, throws and arms overhead meet lamps, windows and other people (common practice; your local policy comes first).';

function takesRoom({ extent, floor, footprint, ...block }: Block): boolean {
  const movements =
    'exercise' in block
      ? [block.exercise.movement]
      : 'exercises' in block
        ? block.exercises.map(({ movement }) => movement)
        : [];
  return (
    floor.length > 0 ||
    footprint !== null ||
    (extent ?? []).some((one) => one === 'overhead' || one === 'jump' || one === 'throw') ||
    movements.some((one) => one === 'skip-rope' || one === 'disc-throw')
  );
}

const cautioned = ({ cautions }: Block) => cautions.some((text) => text.trim() !== '');
const withCaution = (id: string, text: string) =>
  changeBlock(
    id,
    (draft) => void (draft.cautions.length < LIMITS.cautions && draft.cautions.push(text)),
  );

/** A caution where a move can hurt, unless a block of the lesson is about space or health. */
export function cautionsWhereNeeded({ lesson }: PlanToCheck): Found[] {
  const blocks = blocksOf(lesson);
  const say = speaking(lesson.settings.language);
  const has = (part: Block['part']) => blocks.some((block) => block.part === part);
  return blocks.flatMap((block): Found[] => {
    if (cautioned(block)) return [];
    const found = {
      harm: 'gets hurt' as const,
      blockId: block.id,
      atMs: null,
      bench: 'plan' as const,
    };
    if (takesRoom(block) && !has('space'))
      return [
        {
          ...found,
          key: `space ${block.id}`,
          say: `${quoted(block)} takes room, and nothing says to clear the floor.`,
          why: OVERHEAD_WHY,
          remedy: {
            label: 'Add the usual caution',
            change: withCaution(block.id, say('caution.clear')),
          },
        },
      ];
    if (block.effort >= HARD_FROM && !has('health'))
      return [
        {
          ...found,
          key: `health ${block.id}`,
          say: `${quoted(block)} is hard work, and nothing says when to stop.`,
          why: 'Hard work is not for every knee and ankle (common practice; your local policy comes first).',
          remedy: {
            label: 'Add the usual caution',
            change: withCaution(block.id, say('caution.stop')),
          },
        },
      ];
    return [];
  });
}

/** Both sides are trained alike. */
export function sidesEven({ schedule }: PlanToCheck): Found[] {
  return sidesLedger(schedule).uneven.map(({ blockId, title, more, count, ms }) => ({
    key: `sides ${blockId}`,
    harm: 'gets hurt',
    blockId,
    atMs: null,
    say: `In ${quoted({ title })} the ${more} side does ${count > 0 ? `${count} ${count === 1 ? 'repetition' : 'repetitions'}` : lengthText(ms)} more.`,
    why: 'One side trained more than the other leaves a child lopsided over the weeks (common practice).',
    bench: 'plan',
    remedy: null,
  }));
}

/** A pause says what to practise meanwhile. */
export function pausesSayWhat({ lesson }: PlanToCheck): Found[] {
  return blocksOf(lesson).flatMap((block): Found[] =>
    block.pauseAfter && block.pauseAfter.prompt.trim() === ''
      ? [
          {
            key: `pause ${block.id}`,
            harm: 'gets lost',
            blockId: block.id,
            atMs: null,
            say: `The pause after ${quoted(block)} does not say what to practise for ${lengthText(block.pauseAfter.practiceMs)}.`,
            why: 'Who stops the video without a task seldom starts it again (common practice).',
            bench: 'plan',
            remedy: null,
          },
        ]
      : [],
  );
}

/** Video and session against their targets. */
export function lengthInSlot({ lesson, schedule }: PlanToCheck): Found[] {
  const held = [
    ['video', lesson.targets.video, schedule.videoMs],
    ['session', lesson.targets.session, schedule.studentMs],
  ] as const;
  return held.flatMap(([what, target, ms]): Found[] => {
    if (!target || Math.abs(ms - target.ms) <= target.toleranceMs) return [];
    const over = ms > target.ms;
    return [
      {
        key: `length ${what}`,
        harm: 'runs out of time',
        blockId: null,
        atMs: null,
        say: `The ${what} lasts ${lengthText(ms)}: ${lengthText(Math.abs(ms - target.ms))} ${over ? 'over' : 'under'} its ${lengthText(target.ms)}.`,
        why: 'You set this length and its tolerance yourself.',
        bench: 'plan',
        remedy: null,
      },
    ];
  });
}

const SAFETY_PARTS: ReadonlySet<LessonPart> = new Set(['space', 'health', 'warm-up', 'cool-down']);

/** The parts this teacher's lessons have. */
export function partsPresent({ lesson }: PlanToCheck): Found[] {
  return missingParts(lesson).map((part): Found => ({
    key: `part ${part}`,
    harm: SAFETY_PARTS.has(part) ? 'gets hurt' : 'gets lost',
    blockId: null,
    atMs: null,
    say: `The part “${partName(part)}” is missing.`,
    why: 'It is on your own list of parts.',
    bench: 'plan',
    remedy: null,
  }));
}
