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

type Entry<K extends BlockKind> = Figure & {
  /** Whether the block has the figure as it stands. */
  when?: (block: BlockOf<K>) => boolean;
  /** What the block's other figures change about it. */
  narrow?: (block: BlockOf<K>) => Partial<Pick<Figure, 'label' | 'range'>>;
};

const time = (key: string, label: string, range: Range, fit: FitRule | null = null): Figure => ({
  key,
  label,
  unit: 'ms',
  range,
  fit,
});
const count = (key: string, label: string, range: Range, fit: FitRule | null = null): Figure => ({
  key,
  label,
  unit: 'count',
  range,
  fit,
});
const space = (key: string, label: string, range: Range): Figure => ({
  ...{ key, label, range },
  unit: 'cm',
  fit: null,
});
const by = (step: number, weight: number): FitRule => ({ step, weight });

const leadIn = time('leadInMs', 'Lead-in', LIMITS.leadInMs);
const fixed = {
  ...time('fixedMs', 'Length', LIMITS.fixedMs, by(5_000, 2)),
  when: (b: { fixedMs: number | null }) => b.fixedMs !== null,
};
const sideChange = {
  ...time('sideChangeMs', 'Side change', LIMITS.restMs),
  when: (b: { sides: string }) => b.sides === 'each',
};

/** Of a list of moves, how many are done. */
const movesThisTime = {
  ...count('upTo', 'Moves this time', LIMITS.upTo),
  when: (b: { moves: readonly unknown[] }) => b.moves.length > 1,
  narrow: (b: { moves: readonly unknown[] }) => ({ range: { min: 1, max: b.moves.length } }),
};

const restsByBreath = (b: BlockOf<'intervals'>) => b.rests?.by === 'breaths';

const SHORTEST_REP_MS = 200;

/** Together the parts stay long enough to be a repetition. */
function tempo(part: keyof RepsBlock['tempo'], label: string): Entry<'reps'> {
  return {
    ...time(`tempo.${part}`, label, LIMITS.tempoPartMs),
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
      ...time('workMs', 'Work', LIMITS.workMs, by(5_000, 3)),
      when: (b) => b.exercises.some(({ amount }) => !amount),
    },
    {
      ...time('restMs', 'Rest', LIMITS.restMs, by(5_000, 2)),
      when: (b) => b.rests === undefined || b.rests.by === 'time' || b.rests.by === 'ready',
    },
    { ...count('rests.breaths', 'Breaths of rest', LIMITS.breaths, by(1, 2)), when: restsByBreath },
    { ...time('rests.breathInMs', 'Breathe in', LIMITS.breathMs), when: restsByBreath },
    { ...time('rests.breathOutMs', 'Breathe out', LIMITS.breathMs), when: restsByBreath },
    count('rounds', 'Rounds', LIMITS.rounds, by(1, 4)),
    {
      ...time('restBetweenRoundsMs', 'Rest between rounds', LIMITS.restMs, by(5_000, 2)),
      when: (b) => b.restBetweenRoundsMs !== null && b.rounds > 1,
    },
    count('sets', 'Sets', LIMITS.sets, by(1, 5)),
    {
      ...time('restBetweenSetsMs', 'Rest between sets', LIMITS.restMs, by(5_000, 2)),
      when: (b) => b.sets > 1,
    },
    leadIn,
  ],
  reps: [
    {
      ...count('reps', 'Repetitions', LIMITS.reps, by(1, 2)),
      narrow: (b) => (b.sides === 'both' ? {} : { label: 'Repetitions a side' }),
    },
    count('sets', 'Sets', LIMITS.sets, by(1, 5)),
    tempo('downMs', 'Down'),
    tempo('holdMs', 'Hold'),
    tempo('upMs', 'Up'),
    tempo('topHoldMs', 'Hold at the top'),
    leadIn,
    sideChange,
    {
      ...time('restBetweenSetsMs', 'Rest between sets', LIMITS.restMs, by(5_000, 2)),
      when: (b) => b.sets > 1,
    },
  ],
  hold: [
    { ...time('holdMs', 'Hold', LIMITS.holdMs, by(1_000, 2)), when: (b) => b.by === 'seconds' },
    { ...count('breaths', 'Breaths', LIMITS.breaths, by(1, 2)), when: (b) => b.by === 'breaths' },
    { ...time('breathInMs', 'Breathe in', LIMITS.breathMs), when: (b) => b.by === 'breaths' },
    { ...time('breathOutMs', 'Breathe out', LIMITS.breathMs), when: (b) => b.by === 'breaths' },
    {
      ...count('holds', 'Holds', LIMITS.holds, by(1, 3)),
      narrow: (b) => (b.sides === 'both' ? {} : { label: 'Holds a side' }),
    },
    {
      ...time('restMs', 'Rest between holds', LIMITS.restMs, by(1_000, 1)),
      when: (b) => b.holds > 1 || b.sides === 'alternating',
    },
    sideChange,
    leadIn,
  ],
  counts: [
    count('bpm', 'Beats a minute', LIMITS.bpm),
    count('times', 'Times through', LIMITS.tries, by(1, 4)),
    count('countIn', 'Eights counted in', LIMITS.countIn),
    movesThisTime,
  ],
  routine: [
    {
      ...count('timesEach', 'Times each step', LIMITS.demoTimes, by(1, 4)),
      when: (b) => b.grow !== 'whole',
    },
    time('restMs', 'Break between', LIMITS.restMs, by(1_000, 1)),
    {
      ...count('wholeTimes', 'Whole at the end', { min: 0, max: LIMITS.demoTimes.max }, by(1, 4)),
      narrow: (b) =>
        b.grow === 'whole' ? { label: 'Times through', range: LIMITS.demoTimes } : {},
    },
    leadIn,
    movesThisTime,
    {
      ...time('combination.sideChangeMs', 'Side change', LIMITS.restMs),
      when: (b) => b.combination?.sides === 'each',
    },
    {
      ...count('combination.slow.percent', 'Shown at, % of its speed', LIMITS.slowPercent),
      when: (b) => b.combination?.slow !== undefined,
    },
    {
      ...time('combination.scoreMs', 'Noting the score', LIMITS.scoreMs, by(1_000, 1)),
      when: (b) => b.combination?.scoreMs !== undefined,
    },
  ],
  laps: [
    count('laps', 'Laps', LIMITS.laps, by(1, 3)),
    time('lapMs', 'One lap, about', LIMITS.lapMs),
    {
      ...time('restMs', 'Rest between laps', LIMITS.restMs, by(1_000, 1)),
      when: (b) => b.laps > 1,
    },
    count('tokens', 'Tokens', LIMITS.tokens),
    leadIn,
  ],
  game: [
    {
      ...time('explainMs', 'Explaining', LIMITS.fixedMs, by(5_000, 2)),
      when: (b) => b.explainMs !== null,
    },
    {
      ...time('playMs', 'Play', LIMITS.workMs, by(5_000, 2)),
      narrow: (b) => (b.goal === 'clock' ? {} : { label: 'Play, about' }),
    },
    { ...count('target', 'Target', LIMITS.target), when: (b) => b.goal === 'target' },
    count('tries', 'Tries', LIMITS.tries, by(1, 4)),
    {
      ...time('restMs', 'Rest between tries', LIMITS.restMs, by(5_000, 2)),
      when: (b) => b.tries > 1,
    },
    time('scoreMs', 'Noting the score', LIMITS.scoreMs, by(1_000, 1)),
    leadIn,
  ],
  called: [
    {
      ...count('calls', 'Calls', LIMITS.calls, by(1, 1)),
      narrow: (b) => ({
        range: { ...LIMITS.calls, min: Math.max(LIMITS.calls.min, b.minEach * b.labels.length) },
      }),
    },
    {
      ...time('gapMinMs', 'Shortest gap', LIMITS.gapMs),
      narrow: (b) => ({ range: { ...LIMITS.gapMs, max: b.gapMaxMs } }),
    },
    {
      ...time('gapMaxMs', 'Longest gap', LIMITS.gapMs),
      narrow: (b) => ({ range: { ...LIMITS.gapMs, min: b.gapMinMs } }),
    },
    {
      ...count('minEach', 'Each at least', LIMITS.minEach),
      narrow: (b) => ({
        range: {
          ...LIMITS.minEach,
          max: Math.min(LIMITS.minEach.max, Math.floor(b.calls / b.labels.length)),
        },
      }),
    },
    count('seed', 'Order number', LIMITS.seed),
    {
      ...count('trial', 'Calls to try first', LIMITS.trialCalls),
      when: (b) => b.trial !== undefined,
    },
    {
      ...count('leader.without', 'Calls without the words', LIMITS.bareCalls),
      when: (b) => b.leader !== undefined,
      narrow: (b) => ({ range: { min: 0, max: b.calls } }),
    },
    leadIn,
  ],
  question: [
    { ...time('askMs', 'Asking', LIMITS.fixedMs, by(1_000, 2)), when: (b) => b.askMs !== null },
    time('thinkMs', 'Thinking time', LIMITS.thinkMs, by(1_000, 1)),
    {
      ...time('answerMs', 'Answer', LIMITS.fixedMs, by(1_000, 2)),
      when: (b) => b.answerMs !== null,
    },
  ],
  card: [fixed],
};

const DEMO: Figure[] = [
  count('demo.times', 'Shown first', LIMITS.demoTimes, by(1, 2)),
  time('demo.onceMs', 'One showing', LIMITS.onceMs),
];
const PARTS: Figure[] = [
  count('parts.timesEach', 'Times each part', LIMITS.demoTimes, by(1, 3)),
  time('parts.partMs', 'One part', LIMITS.onceMs),
  count('parts.joinedTimes', 'Times joined', LIMITS.demoTimes, by(1, 3)),
  time('parts.joinedMs', 'Joined, slowly', LIMITS.onceMs),
];
const PAUSE: Figure[] = [
  time('pauseAfter.practiceMs', 'Practice', LIMITS.practiceMs, by(30_000, 1)),
  time('pauseAfter.signMs', 'Pause sign', LIMITS.signMs),
];

/** Figures of what lies on the floor, where there is such a thing. */
const FLOOR: Figure[] = [
  space('floor.distance', 'Distance', LIMITS.sideCm),
  space('floor.size', 'Size of the target', LIMITS.sideCm),
  space('floor.height', 'Height', LIMITS.heightCm),
];

const isTogether = (block: Block, key: string): boolean => together[key]?.read(block) !== null;

const nameOf = ({ title }: { title: string }, what: string, at: number): string =>
  title || `${what} ${at + 1}`;

const amountFigures = (amount: Amount, key: string, name: string): Figure[] =>
  amount.kind === 'hold'
    ? [time(`${key}.holdMs`, `Hold of ${name}`, LIMITS.holdMs, by(5_000, 3))]
    : [
        count(`${key}.reps`, `Repetitions of ${name}`, LIMITS.reps, by(1, 2)),
        time(`${key}.oneMs`, `One repetition of ${name}`, LIMITS.oneRepMs),
      ];

function listFigures(block: Block): Figure[] {
  switch (block.kind) {
    case 'intervals':
      return [
        ...block.exercises.flatMap((one, i) =>
          one.amount
            ? amountFigures(one.amount, `exercises.${i}.amount`, nameOf(one, 'exercise', i))
            : [],
        ),
        ...block.ladder.flatMap((_rung, i) => [
          time(`ladder.${i}.workMs`, `Work of rung ${i + 2}`, LIMITS.workMs, by(5_000, 3)),
          time(`ladder.${i}.restMs`, `Rest of rung ${i + 2}`, LIMITS.restMs, by(5_000, 2)),
        ]),
      ];
    case 'counts':
      return block.moves.map((move, i) =>
        count(
          `moves.${i}.eights`,
          `${move.beats ? 'Times' : 'Eights'} of ${nameOf(move, 'move', i)}`,
          LIMITS.eights,
          by(1, 3),
        ),
      );
    case 'routine':
      return block.moves.flatMap((move, i) =>
        move.amount
          ? amountFigures(move.amount, `moves.${i}.amount`, nameOf(move, 'move', i))
          : [time(`moves.${i}.ms`, `Length of ${nameOf(move, 'move', i)}`, LIMITS.moveMs)],
      );
    case 'called':
      return block.labels.flatMap(({ text, amount }, i) =>
        amount ? amountFigures(amount, `labels.${i}.amount`, text || `command ${i + 1}`) : [],
      );
    default:
      return [];
  }
}

/** The figures a block has as it stands, those of its lists, showing and pause included. */
export function figuresOf(block: Block): Figure[] {
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

/** The figure of that key; undefined when the block has none as it stands. */
export function figureOf(block: Block, key: string): Figure | undefined {
  return figuresOf(block).find((figure) => figure.key === key);
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

/** Words for the last part of a figure's path, for messages about a place in a document. */
export const figureWords: Readonly<Record<string, string>> = Object.fromEntries([
  ...[...Object.values(TABLE).flat(), ...DEMO, ...PARTS, ...PAUSE].map(({ key, label }) => [
    key.split('.').at(-1) ?? key,
    label.toLowerCase(),
  ]),
  ['holdMs', 'hold'],
  ['workMs', 'work time'],
  ['practiceMs', 'practice time'],
  ['ms', 'length'],
  ['toleranceMs', 'tolerance'],
  ['speechWpm', 'speech pace'],
]);
