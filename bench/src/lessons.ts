import {
  blockKinds,
  makeBlock,
  makeCue,
  makeExercise,
  makeLesson,
  type Block,
  type IntervalsBlock,
  type Lesson,
  type RepsBlock,
} from '@zest/core/lesson';

let next = 0;
const makeId = () => `id-${(next += 1)}`;

/** A lesson of `count` blocks of all kinds in turn. */
export function manyBlocks(count: number): Lesson {
  const lesson = makeLesson('Many blocks', makeId);
  lesson.sections = Array.from({ length: Math.ceil(count / 10) }, (_section, s) => ({
    id: makeId(),
    title: 'Section',
    blocks: Array.from({ length: 10 }, (_, i): Block => {
      const block = makeBlock(blockKinds[(s * 10 + i) % blockKinds.length] ?? 'talk', makeId);
      const pauseAfter =
        i % 5 === 0 ? { practiceMs: 120_000, signMs: 5_000, prompt: 'Again' } : null;
      return {
        ...block,
        script: 'Stand side-on and keep the disc level until you let it go.',
        pauseAfter,
      };
    }),
  }));
  return lesson;
}

/** An hour of interval blocks whose clocks, cues and cautions come to 300 overlays. */
export function anHour(): Lesson {
  const lesson = makeLesson('An hour', makeId);
  const blocks = Array.from({ length: 12 }, (_, i): Block => {
    const block = makeBlock('intervals', makeId) as IntervalsBlock;
    return {
      ...block,
      title: `Circuit ${i + 1}`,
      leadInMs: 6_000,
      workMs: 42_000,
      restMs: 21_000,
      rounds: 5,
      exercises: [{ ...makeExercise('Skip', makeId), sides: 'both' }],
      restBetweenRoundsMs: null,
      cues: ['a', 'b', 'c', 'd'].map((text) => makeCue(`Cue ${text}`, makeId)),
      cautions: ['Stop if it hurts.'],
      pauseAfter: null,
    };
  });
  lesson.sections = [{ id: makeId(), title: 'Hour', blocks }];
  return lesson;
}

/** The lesson with as many cues as it takes to have twice the things on screen. */
export function crowded(lesson: Lesson): Lesson {
  const more = ['e', 'f', 'g', 'h', 'i', 'j', 'k', 'l'].map((text) =>
    makeCue(`Cue ${text}`, makeId),
  );
  return {
    ...lesson,
    sections: lesson.sections.map((section) => ({
      ...section,
      blocks: section.blocks.map((block) => ({ ...block, cues: [...block.cues, ...more] })),
    })),
  };
}

/**
 * Ten minutes of the same kind: five times the two, each time over another two minutes of the take.
 */
export function tenMinutes(takeId: string): Lesson {
  const lesson = makeLesson('Ten minutes', makeId);
  lesson.sections = Array.from({ length: 5 }, (_section, s) => {
    const blocks = twoMinutes(takeId).sections.flatMap((section) => section.blocks);
    return {
      id: makeId(),
      title: `Part ${s + 1}`,
      blocks: blocks.map((block) => ({
        ...block,
        footage: block.footage && {
          ...block.footage,
          startsAtMs: (block.footage.startsAtMs ?? 0) + s * 120_000,
        },
      })),
    };
  });
  return lesson;
}

/** 24 minutes in 41 filmed blocks, with clocks, cues, cautions and a script each. */
export function fortyOneBlocks(takeId: string | null): Lesson {
  const lesson = makeLesson('Forty-one blocks', makeId);
  const blocks = Array.from({ length: 41 }, (_, i): Block => ({
    ...(makeBlock('intervals', makeId) as IntervalsBlock),
    ...{
      title: `Block ${i + 1}`,
      workMs: 12_000,
      restMs: 4_000,
      rounds: 2,
      leadInMs: 5_000,
      cautions: ['Stop if it hurts.'],
      script:
        'Land softly on both feet. Keep your elbows close to the body. Breathe out on each turn of the rope.',
    },
    cues: ['Soft knees', 'Elbows close'].map((text) => makeCue(text, makeId)),
    footage: takeId === null ? null : { takeId, startsAtMs: (i % 5) * 4_000 },
  }));
  lesson.sections = Array.from({ length: 5 }, (_, s) => ({
    id: makeId(),
    title: `Part ${s + 1}`,
    blocks: blocks.slice(s * 9, (s + 1) * 9),
  }));
  return lesson;
}

/** Two minutes with footage throughout, clock or count on screen nearly all the time, and cues. */
export function twoMinutes(takeId: string): Lesson {
  const lesson = makeLesson('Two minutes', makeId);
  const footage = (startsAtMs: number) => ({ takeId, startsAtMs });
  const cues = ['Soft knees', 'Elbows close'].map((text) => makeCue(text, makeId));
  const work = (startsAtMs: number): IntervalsBlock => ({
    ...(makeBlock('intervals', makeId) as IntervalsBlock),
    ...{
      workMs: 15_000,
      restMs: 5_000,
      rounds: 2,
      leadInMs: 5_000,
      cues,
      footage: footage(startsAtMs),
    },
  });
  const reps: RepsBlock = {
    ...(makeBlock('reps', makeId) as RepsBlock),
    ...{
      reps: 8,
      sides: 'each',
      sideChangeMs: 5_000,
      leadInMs: 3_000,
      cues,
      footage: footage(40_000),
    },
    tempo: { downMs: 1_000, holdMs: 0, upMs: 1_000, topHoldMs: 0 },
  };
  lesson.sections = [{ id: makeId(), title: 'All', blocks: [work(0), reps, work(80_000)] }];
  return lesson;
}

/** Eight filmed blocks that are rendered as a piece each. */
export function eightPieces(takeId: string | null): Lesson {
  const lesson = makeLesson('Eight pieces', makeId);
  const blocks = Array.from({ length: 8 }, (_, i): Block => ({
    ...(makeBlock('intervals', makeId) as IntervalsBlock),
    ...{ title: `Block ${i + 1}`, leadInMs: 2_000, workMs: 7_000 + 250 * i, restMs: 0, rounds: 1 },
    footage: takeId === null ? null : { takeId, startsAtMs: i * 2_000 },
  }));
  lesson.sections = [{ id: makeId(), title: 'All', blocks }];
  return lesson;
}
