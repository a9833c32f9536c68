import { teacherText, type Figures, type TeacherWord } from '../words/index.ts';
import type { Amount, Block, BlockKind, BlockOf, RepsBlock } from './blocks.ts';
import { LIMITS, type Range } from './limits.ts';
import { repMs } from './make.ts';
import { together } from './together.ts';

/** How fitting a lesson to a slot may change a figure: by whole steps, each costing `weight`. */
export interface FitRule {
  step: number;
  weight: number;
}

/**
 * A whole number of a block that a teacher sets: where it lies, what it is called and what it may
 * be.
 */
export interface Figure {
  /** Path in the block, parts joined by dots: `workMs`, `tempo.downMs`, `moves.0.ms`. */
  key: string;
  label: string;
  unit: 'ms' | 'count' | 'cm';
  range: Range;
  /** Null: never changed without being asked. */
  fit: FitRule | null;
}

/** A figure as it is listed: what it is called is said in the teacher's language when it is asked for. */
type Named = Omit<Figure, 'label'> & { word: TeacherWord; named?: Figures };

type Entry<K extends BlockKind> = Named & {
  /** Whether the block has the figure as it stands. */
  when?: (block: BlockOf<K>) => boolean;
  /** What the block's other figures change about it. */
  narrow?: (block: BlockOf<K>) => Partial<Pick<Named, 'word' | 'range'>>;
};

const figure =
  (unit: Figure['unit']) =>
  (
    key: string,
    word: TeacherWord,
    range: Range,
    fit: FitRule | null = null,
    named?: Figures,
  ): Named => ({ key, word, unit, range, fit, ...(named && { named }) });
const time = figure('ms');
const count = figure('count');
const space = figure('cm');
const by = (step: number, weight: number): FitRule => ({ step, weight });

const leadIn = time('leadInMs', 'figure.lead-in', LIMITS.leadInMs);
const fixed = {
  ...time('fixedMs', 'figure.length', LIMITS.fixedMs, by(5_000, 2)),
  when: (b: { fixedMs: number | null }) => b.fixedMs !== null,
};
const sideChange = {
  ...time('sideChangeMs', 'figure.side-change', LIMITS.restMs),
  when: (b: { sides: string }) => b.sides === 'each',
};

/** Of a list of moves, how many are done. */
const movesThisTime = {
  ...count('upTo', 'figure.moves-this-time', LIMITS.upTo),
  when: (b: { moves: readonly unknown[] }) => b.moves.length > 1,
  narrow: (b: { moves: readonly unknown[] }) => ({ range: { min: 1, max: b.moves.length } }),
};

const restsByBreath = (b: BlockOf<'intervals'>) => b.rests?.by === 'breaths';

const SHORTEST_REP_MS = 200;

/** Together the parts stay long enough to be a repetition. */
function tempo(part: keyof RepsBlock['tempo'], word: TeacherWord): Entry<'reps'> {
  return {
    ...time(`tempo.${part}`, word, LIMITS.tempoPartMs),
    narrow: (b) => ({
      range: {
        ...LIMITS.tempoPartMs,
        min: Math.max(LIMITS.tempoPartMs.min, SHORTEST_REP_MS - (repMs(b.tempo) - b.tempo[part])),
      },
    }),
  };
}

/**
 * The figures of every kind of block, in the order a teacher thinks of them; lists within a block
 * follow below.
 */
const TABLE: { [K in BlockKind]: Entry<K>[] } = {
  talk: [fixed],
  intervals: [
    {
      ...time('workMs', 'figure.work', LIMITS.workMs, by(5_000, 3)),
      when: (b) => b.exercises.some(({ amount }) => !amount),
    },
    {
      ...time('restMs', 'figure.rest', LIMITS.restMs, by(5_000, 2)),
      when: (b) => b.rests === undefined || b.rests.by === 'time' || b.rests.by === 'ready',
    },
    {
      ...count('rests.breaths', 'figure.breaths-of-rest', LIMITS.breaths, by(1, 2)),
      when: restsByBreath,
    },
    { ...time('rests.breathInMs', 'figure.breathe-in', LIMITS.breathMs), when: restsByBreath },
    { ...time('rests.breathOutMs', 'figure.breathe-out', LIMITS.breathMs), when: restsByBreath },
    count('rounds', 'figure.rounds', LIMITS.rounds, by(1, 4)),
    {
      ...time('restBetweenRoundsMs', 'figure.rest-between-rounds', LIMITS.restMs, by(5_000, 2)),
      when: (b) => b.restBetweenRoundsMs !== null && b.rounds > 1,
    },
    count('sets', 'figure.sets', LIMITS.sets, by(1, 5)),
    {
      ...time('restBetweenSetsMs', 'figure.rest-between-sets', LIMITS.restMs, by(5_000, 2)),
      when: (b) => b.sets > 1,
    },
    leadIn,
  ],
  reps: [
    {
      ...count('reps', 'figure.reps', LIMITS.reps, by(1, 2)),
      narrow: (b) => (b.sides === 'both' ? {} : { word: 'figure.reps-a-side' }),
    },
    count('sets', 'figure.sets', LIMITS.sets, by(1, 5)),
    tempo('downMs', 'figure.down'),
    tempo('holdMs', 'figure.hold'),
    tempo('upMs', 'figure.up'),
    tempo('topHoldMs', 'figure.hold-at-the-top'),
    leadIn,
    sideChange,
    {
      ...time('restBetweenSetsMs', 'figure.rest-between-sets', LIMITS.restMs, by(5_000, 2)),
      when: (b) => b.sets > 1,
    },
  ],
  hold: [
    {
      ...time('holdMs', 'figure.hold', LIMITS.holdMs, by(1_000, 2)),
      when: (b) => b.by === 'seconds',
    },
    {
      ...count('breaths', 'figure.breaths', LIMITS.breaths, by(1, 2)),
      when: (b) => b.by === 'breaths',
    },
    {
      ...time('breathInMs', 'figure.breathe-in', LIMITS.breathMs),
      when: (b) => b.by === 'breaths',
    },
    {
      ...time('breathOutMs', 'figure.breathe-out', LIMITS.breathMs),
      when: (b) => b.by === 'breaths',
    },
    {
      ...count('holds', 'figure.holds', LIMITS.holds, by(1, 3)),
      narrow: (b) => (b.sides === 'both' ? {} : { word: 'figure.holds-a-side' }),
    },
    {
      ...time('restMs', 'figure.rest-between-holds', LIMITS.restMs, by(1_000, 1)),
      when: (b) => b.holds > 1 || b.sides === 'alternating',
    },
    sideChange,
    leadIn,
  ],
  counts: [
    count('bpm', 'figure.bpm', LIMITS.bpm),
    count('times', 'figure.times-through', LIMITS.tries, by(1, 4)),
    count('countIn', 'figure.count-in', LIMITS.countIn),
    movesThisTime,
  ],
  routine: [
    {
      ...count('timesEach', 'figure.times-each-step', LIMITS.demoTimes, by(1, 4)),
      when: (b) => b.grow !== 'whole',
    },
    time('restMs', 'figure.break-between', LIMITS.restMs, by(1_000, 1)),
    {
      ...count(
        'wholeTimes',
        'figure.whole-at-the-end',
        { min: 0, max: LIMITS.demoTimes.max },
        by(1, 4),
      ),
      narrow: (b) =>
        b.grow === 'whole' ? { word: 'figure.times-through', range: LIMITS.demoTimes } : {},
    },
    leadIn,
    movesThisTime,
    {
      ...time('combination.sideChangeMs', 'figure.side-change', LIMITS.restMs),
      when: (b) => b.combination?.sides === 'each',
    },
    {
      ...count('combination.slow.percent', 'figure.shown-at', LIMITS.slowPercent),
      when: (b) => b.combination?.slow !== undefined,
    },
    {
      ...time('combination.scoreMs', 'figure.noting-the-score', LIMITS.scoreMs, by(1_000, 1)),
      when: (b) => b.combination?.scoreMs !== undefined,
    },
  ],
  laps: [
    count('laps', 'figure.laps', LIMITS.laps, by(1, 3)),
    time('lapMs', 'figure.lap-about', LIMITS.lapMs),
    {
      ...time('restMs', 'figure.rest-between-laps', LIMITS.restMs, by(1_000, 1)),
      when: (b) => b.laps > 1,
    },
    count('tokens', 'figure.tokens', LIMITS.tokens),
    leadIn,
  ],
  game: [
    {
      ...time('explainMs', 'figure.explaining', LIMITS.fixedMs, by(5_000, 2)),
      when: (b) => b.explainMs !== null,
    },
    {
      ...time('playMs', 'figure.play', LIMITS.workMs, by(5_000, 2)),
      narrow: (b) => (b.goal === 'clock' ? {} : { word: 'figure.play-about' }),
    },
    { ...count('target', 'figure.target', LIMITS.target), when: (b) => b.goal === 'target' },
    count('tries', 'figure.tries', LIMITS.tries, by(1, 4)),
    {
      ...time('restMs', 'figure.rest-between-tries', LIMITS.restMs, by(5_000, 2)),
      when: (b) => b.tries > 1,
    },
    time('scoreMs', 'figure.noting-the-score', LIMITS.scoreMs, by(1_000, 1)),
    leadIn,
  ],
  called: [
    {
      ...count('calls', 'figure.calls', LIMITS.calls, by(1, 1)),
      narrow: (b) => ({
        range: { ...LIMITS.calls, min: Math.max(LIMITS.calls.min, b.minEach * b.labels.length) },
      }),
    },
    {
      ...time('gapMinMs', 'figure.shortest-gap', LIMITS.gapMs),
      narrow: (b) => ({ range: { ...LIMITS.gapMs, max: b.gapMaxMs } }),
    },
    {
      ...time('gapMaxMs', 'figure.longest-gap', LIMITS.gapMs),
      narrow: (b) => ({ range: { ...LIMITS.gapMs, min: b.gapMinMs } }),
    },
    {
      ...count('minEach', 'figure.each-at-least', LIMITS.minEach),
      narrow: (b) => ({
        range: {
          ...LIMITS.minEach,
          max: Math.min(LIMITS.minEach.max, Math.floor(b.calls / b.labels.length)),
        },
      }),
    },
    count('seed', 'figure.order-number', LIMITS.seed),
    {
      ...count('trial', 'figure.trial-calls', LIMITS.trialCalls),
      when: (b) => b.trial !== undefined,
    },
    {
      ...count('leader.without', 'figure.bare-calls', LIMITS.bareCalls),
      when: (b) => b.leader !== undefined,
      narrow: (b) => ({ range: { min: 0, max: b.calls } }),
    },
    leadIn,
  ],
  question: [
    {
      ...time('askMs', 'figure.asking', LIMITS.fixedMs, by(1_000, 2)),
      when: (b) => b.askMs !== null,
    },
    time('thinkMs', 'figure.thinking-time', LIMITS.thinkMs, by(1_000, 1)),
    {
      ...time('answerMs', 'figure.answer', LIMITS.fixedMs, by(1_000, 2)),
      when: (b) => b.answerMs !== null,
    },
  ],
  card: [fixed],
};

const DEMO: Named[] = [
  count('demo.times', 'figure.shown-first', LIMITS.demoTimes, by(1, 2)),
  time('demo.onceMs', 'figure.one-showing', LIMITS.onceMs),
];
const PARTS: Named[] = [
  count('parts.timesEach', 'figure.times-each-part', LIMITS.demoTimes, by(1, 3)),
  time('parts.partMs', 'figure.one-part', LIMITS.onceMs),
  count('parts.joinedTimes', 'figure.times-joined', LIMITS.demoTimes, by(1, 3)),
  time('parts.joinedMs', 'figure.joined-slowly', LIMITS.onceMs),
];
const PAUSE: Named[] = [
  time('pauseAfter.practiceMs', 'figure.practice', LIMITS.practiceMs, by(30_000, 1)),
  time('pauseAfter.signMs', 'figure.pause-sign', LIMITS.signMs),
];

/** Figures of what lies on the floor, where there is such a thing. */
const FLOOR: Named[] = [
  space('floor.distance', 'common.distance', LIMITS.sideCm),
  space('floor.size', 'figure.target-size', LIMITS.sideCm),
  space('floor.height', 'common.height', LIMITS.heightCm),
];

const isTogether = (block: Block, key: string): boolean => together[key]?.read(block) !== null;

const nameOf = ({ title }: { title: string }, what: TeacherWord, at: number): string =>
  title || teacherText(what, { n: at + 1 });

const amountFigures = (amount: Amount, key: string, name: string): Named[] =>
  amount.kind === 'hold'
    ? [time(`${key}.holdMs`, 'figure.hold-of', LIMITS.holdMs, by(5_000, 3), { name })]
    : [
        count(`${key}.reps`, 'figure.reps-of', LIMITS.reps, by(1, 2), { name }),
        time(`${key}.oneMs`, 'figure.rep-of', LIMITS.oneRepMs, null, { name }),
      ];

function listFigures(block: Block): Named[] {
  switch (block.kind) {
    case 'intervals':
      return [
        ...block.exercises.flatMap((one, i) =>
          one.amount
            ? amountFigures(one.amount, `exercises.${i}.amount`, nameOf(one, 'figure.exercise', i))
            : [],
        ),
        ...block.ladder.flatMap((_rung, i) => [
          time(`ladder.${i}.workMs`, 'figure.work-of-rung', LIMITS.workMs, by(5_000, 3), {
            n: i + 2,
          }),
          time(`ladder.${i}.restMs`, 'figure.rest-of-rung', LIMITS.restMs, by(5_000, 2), {
            n: i + 2,
          }),
        ]),
      ];
    case 'counts':
      return block.moves.map((move, i) =>
        count(
          `moves.${i}.eights`,
          move.beats ? 'figure.times-of' : 'figure.eights-of',
          LIMITS.eights,
          by(1, 3),
          { name: nameOf(move, 'figure.move', i) },
        ),
      );
    case 'routine':
      return block.moves.flatMap((move, i) =>
        move.amount
          ? amountFigures(move.amount, `moves.${i}.amount`, nameOf(move, 'figure.move', i))
          : [
              time(`moves.${i}.ms`, 'figure.length-of', LIMITS.moveMs, null, {
                name: nameOf(move, 'figure.move', i),
              }),
            ],
      );
    case 'called':
      return block.labels.flatMap(({ text, amount }, i) =>
        amount
          ? amountFigures(
              amount,
              `labels.${i}.amount`,
              nameOf({ title: text }, 'figure.command', i),
            )
          : [],
      );
    default:
      return [];
  }
}

/** The figures a block has as it stands, those of its lists, showing and pause included. */
function listed(block: Block): Named[] {
  const ofKind = (TABLE[block.kind] as Entry<BlockKind>[]).flatMap(({ when, narrow, ...figure }) =>
    when && !when(block as never) ? [] : [{ ...figure, ...narrow?.(block as never) }],
  );
  return [
    ...ofKind,
    ...listFigures(block),
    ...('parts' in block && block.parts ? PARTS : []),
    ...('demo' in block && block.demo ? DEMO : []),
    ...(block.pauseAfter ? PAUSE : []),
    ...(block.floor.length > 0 || block.ways
      ? FLOOR.filter(({ key }) => isTogether(block, key))
      : []),
  ];
}

const labelled = ({ word, named, ...figure }: Named): Figure => ({
  ...figure,
  label: teacherText(word, named),
});

/** The figures a block has as it stands, each by what it is called. */
export const figuresOf = (block: Block): Figure[] => listed(block).map(labelled);

/** The figure of that key; undefined when the block has none as it stands. */
export function figureOf(block: Block, key: string): Figure | undefined {
  const figure = listed(block).find((one) => one.key === key);
  return figure && labelled(figure);
}

function holderOf(block: object, key: string): { holder: Record<string, unknown>; last: string } {
  const path = key.split('.');
  const last = path.pop() ?? '';
  let holder = block as Record<string, unknown>;
  for (const part of path) holder = holder[part] as Record<string, unknown>;
  return { holder, last };
}

/** The value of a figure the block has. */
export function readFigure(block: Block, key: string): number {
  const several = together[key]?.read(block);
  if (several !== undefined && several !== null) return several;
  const { holder, last } = holderOf(block, key);
  return holder[last] as number;
}

/** Sets a figure of a draft in place. */
export function writeFigure(draft: Block, key: string, value: number): void {
  const several = together[key];
  if (several) return several.write(draft, value);
  const { holder, last } = holderOf(draft, key);
  holder[last] = value;
}

const WORDS: Readonly<Record<string, TeacherWord>> = {
  ...Object.fromEntries(
    [...Object.values(TABLE).flat(), ...DEMO, ...PARTS, ...PAUSE].map(({ key, word }) => [
      key.split('.').at(-1),
      word,
    ]),
  ),
  holdMs: 'figure.hold',
  workMs: 'figure.work-time',
  practiceMs: 'figure.practice-time',
  ms: 'figure.length',
  toleranceMs: 'figure.tolerance',
  speechWpm: 'figure.speech-pace',
};

/** A word for the last part of a figure's path, for messages about a place in a document. */
export const figureWord = (part: string): string => {
  const word = WORDS[part];
  return word ? teacherText(word).toLowerCase() : part;
};
