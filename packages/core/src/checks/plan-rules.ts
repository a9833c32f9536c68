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
  meetsTarget,
  partName,
  type Block,
  type LessonPart,
  allCautions,
} from '../lesson/index.ts';
import { speaking } from '../words/index.ts';
import { COMMON, type Hit } from './finding.ts';
import type { Rule, ToCheck } from './rule.ts';

/** Kit that is needed before anybody has said so. */
function kitInTime({ lesson, schedule, makeId }: ToCheck): Hit[] {
  const { language } = lesson.settings;
  return kitLedger(schedule, language).flatMap((line): Hit[] => {
    const { fetchBefore, neededIn, name } = line;
    if (!fetchBefore || !neededIn) return [];
    return [
      {
        place: [fetchBefore, name.toLowerCase()],
        blockId: fetchBefore,
        figures: { name },
        remedy: { change: insertBefore(fetchBefore, fetchPause(line, language, makeId)) },
      },
    ];
  });
}

/** Warm-up, hard part and cool-down against the usual guidance. */
function effortInOrder({ schedule }: ToCheck): Hit[] {
  const firstHard = schedule.blocks.find(
    ({ block }) => block.effort >= HARD_FROM && block.part !== 'warm-up',
  );
  return effortAdvice(effortCurve(schedule), schedule.studentMs).flatMap(
    ({ holds, text, source }, i): Hit[] =>
      holds
        ? []
        : [
            {
              place: [String(i)],
              blockId: firstHard?.block.id ?? null,
              figures: { text },
              source,
            },
          ],
  );
}

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

const isCautioned = (block: Block) => allCautions(block).some((text) => text.trim() !== '');

/** Blocks without a caution that need one, unless a block of the lesson is about that. */
function withoutCaution(
  { lesson }: ToCheck,
  part: LessonPart,
  word: 'caution.clear' | 'caution.stop',
  needsIt: (block: Block) => boolean,
): Hit[] {
  const blocks = blocksOf(lesson);
  if (blocks.some((block) => block.part === part)) return [];
  const caution = speaking(lesson.settings.language)(word);
  return blocks
    .filter((block) => !isCautioned(block) && needsIt(block))
    .map(({ id }) => ({
      place: [id],
      blockId: id,
      remedy: {
        change: changeBlock(
          id,
          ({ cautions }) => void (cautions.length < LIMITS.cautions && cautions.push(caution)),
        ),
      },
    }));
}

function roomIsCleared(all: ToCheck): Hit[] {
  return withoutCaution(all, 'space', 'caution.clear', takesRoom);
}

/** Hard work says when to stop; a block that is to clear the floor first is told of that. */
function hardWorkIsCautioned(all: ToCheck): Hit[] {
  const clears = new Set(roomIsCleared(all).map(({ blockId }) => blockId));
  return withoutCaution(
    all,
    'health',
    'caution.stop',
    ({ id, effort }) => effort >= HARD_FROM && !clears.has(id),
  );
}

/** Both sides are trained alike. */
const sidesEven = ({ schedule }: ToCheck): Hit[] =>
  sidesLedger(schedule).uneven.map(({ blockId, more, count, ms }) => ({
    place: [blockId],
    blockId,
    figures: { side: more, count, moreMs: ms },
  }));

/** A pause says what to practise meanwhile. */
const pausesSayWhat = ({ lesson }: ToCheck): Hit[] =>
  blocksOf(lesson).flatMap(({ id, pauseAfter }): Hit[] =>
    pauseAfter && pauseAfter.prompt.trim() === ''
      ? [{ place: [id], blockId: id, figures: { practiceMs: pauseAfter.practiceMs } }]
      : [],
  );

/** Video and session against their targets. */
function lengthInSlot({ lesson, schedule }: ToCheck): Hit[] {
  const held = [
    ['video', lesson.targets.video, schedule.videoMs],
    ['session', lesson.targets.session, schedule.studentMs],
  ] as const;
  return held.flatMap(([what, target, ms]): Hit[] => {
    if (!target || meetsTarget(ms, target)) return [];
    const figures = {
      what,
      lastsMs: ms,
      offMs: Math.abs(ms - target.ms),
      way: ms > target.ms ? 'over' : 'under',
      targetMs: target.ms,
    };
    return [{ place: [what], blockId: null, figures }];
  });
}

const SAFETY_PARTS: ReadonlySet<LessonPart> = new Set(['space', 'health', 'warm-up', 'cool-down']);

/** The parts this teacher's lessons have. */
const partsPresent = ({ lesson }: ToCheck): Hit[] =>
  missingParts(lesson).map((part) => ({
    place: [part],
    blockId: null,
    figures: { part: partName(part) },
    ...(SAFETY_PARTS.has(part) && { harm: 'gets hurt' as const }),
  }));

export const planRules: readonly Rule[] = [
  { id: 'kit', harm: 'gets lost', bench: 'plan', source: COMMON, run: kitInTime },
  { id: 'effort', harm: 'gets hurt', bench: 'plan', source: COMMON, run: effortInOrder },
  {
    id: 'space',
    harm: 'gets hurt',
    bench: 'plan',
    source: COMMON,
    seenAt: ['caution'],
    run: roomIsCleared,
  },
  {
    id: 'health',
    harm: 'gets hurt',
    bench: 'plan',
    source: COMMON,
    seenAt: ['caution'],
    run: hardWorkIsCautioned,
  },
  {
    id: 'sides',
    harm: 'gets hurt',
    bench: 'plan',
    source: COMMON,
    seenAt: ['side', 'counter'],
    run: sidesEven,
  },
  { id: 'pause', harm: 'gets lost', bench: 'plan', source: COMMON, run: pausesSayWhat },
  { id: 'part', harm: 'gets lost', bench: 'plan', source: null, run: partsPresent },
  { id: 'length', harm: 'runs out of time', bench: 'plan', source: null, run: lengthInSlot },
];
