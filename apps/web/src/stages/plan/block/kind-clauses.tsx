import { growths, LIMITS, type Block, type BlockKind, type BlockOf } from '@zest/core/lesson';
import { measureBlock, readerAge, speechMs } from '@zest/core/schedule';
import { teacherText } from '@zest/core/words';
import type { ReactNode } from 'react';
import { useLessonPart } from '../../../app/use-lesson.ts';
import { AimField, ChoiceField } from '../../../ui/fields.tsx';
import { setOrLeave } from '../../../ui/set-or-leave.ts';
import { useChange } from '../../../ui/use-change.ts';
import { FirstSide } from './layout.tsx';
import type { Clause } from './Sentence.tsx';

type SpokenKey<B> = { [K in keyof B]: B[K] extends number | null ? K : never }[keyof B] & string;

interface SpokenProps<B extends Block> {
  block: B;
  figure: SpokenKey<B>;
  /** The block without anything else that takes time. */
  alone: B;
  words: 'words' | 'reading';
}

/** Whether something lasts as long as its words take, or a time that is set. */
function SpokenLength<B extends Block>({ block, figure, alone, words }: SpokenProps<B>) {
  const change = useChange(block);
  const lesson = useLessonPart((now) => now);
  const spokenMs =
    figure === 'explainMs'
      ? speechMs(block.script, lesson.settings.speechWpm)
      : measureBlock({ ...alone, [figure]: null }, lesson);
  const fixedMs = Math.min(LIMITS.fixedMs.max, Math.max(LIMITS.fixedMs.min, spokenMs));
  const age = readerAge(lesson.audience.ageFrom);
  return (
    <ChoiceField
      label={teacherText(`spoken.${figure as 'fixedMs' | 'explainMs' | 'askMs' | 'answerMs'}`)}
      value={block[figure] === null ? 'spoken' : 'set'}
      choices={[
        [
          'spoken',
          words === 'words' ? teacherText('spoken.words') : teacherText('spoken.reading', { age }),
        ],
        ['set', teacherText('spoken.set')],
      ]}
      onChange={(by) =>
        change(
          teacherText('block.length'),
          (d) => Object.assign(d, { [figure]: by === 'spoken' ? null : fixedMs }),
          false,
        )
      }
    />
  );
}

function Sides({ block }: { block: BlockOf<'reps' | 'hold'> }) {
  const change = useChange(block);
  return (
    <ChoiceField
      label={teacherText('clause.sides')}
      value={block.sides}
      choices={(['both', 'each', 'alternating'] as const).map(
        (sides) => [sides, teacherText(`clause.sides-${sides}`)] as const,
      )}
      onChange={(sides) => change(teacherText('block.sides'), (d) => void (d.sides = sides))}
    />
  );
}

/** Whether rests last as planned, or until the student is ready. */
function RestsEnd({ block }: { block: BlockOf<'reps' | 'routine'> }) {
  const change = useChange(block);
  return (
    <ChoiceField
      label={teacherText('rests.by')}
      value={block.restBy ?? 'time'}
      choices={(['time', 'ready'] as const).map(
        (by) => [by, teacherText(`rests.by-${by}`)] as const,
      )}
      onChange={(by) =>
        change(
          teacherText('block.rests'),
          (d) => setOrLeave(d, 'restBy', by === 'time' ? undefined : by),
          false,
        )
      }
    />
  );
}

/** A choice that is one of a block's own values. */
function Value<B extends Block, K extends keyof B & string>({
  block,
  field,
  label,
  choices,
}: {
  block: B;
  field: K;
  label: string;
  choices: readonly (readonly [B[K] & string, string])[];
}) {
  const change = useChange(block);
  return (
    <ChoiceField
      label={label}
      value={block[field] as B[K] & string}
      choices={choices}
      onChange={(value) => change(label, (d) => void (d[field as keyof typeof d] = value as never))}
    />
  );
}

function Bar({ block }: { block: BlockOf<'counts'> }) {
  const change = useChange(block);
  return (
    <AimField
      label={teacherText('counts.bar')}
      value={block.bar ?? null}
      most={LIMITS.beats.max}
      onChange={(bar) =>
        change(teacherText('block.bar'), (d) => setOrLeave(d, 'bar', bar ?? undefined))
      }
    />
  );
}

function Stem({ block }: { block: BlockOf<'routine'> }) {
  const change = useChange(block);
  return (
    <AimField
      label={teacherText('routine.stem')}
      value={block.stem ?? null}
      most={Math.max(1, block.moves.length - 1)}
      onChange={(stem) =>
        change(teacherText('block.known-moves'), (d) => setOrLeave(d, 'stem', stem ?? undefined))
      }
    />
  );
}

const sidesClause = (block: BlockOf<'reps' | 'hold'>): Clause[] => [
  block.sides === 'both'
    ? { word: 'clause.by-both', slots: { sides: <Sides block={block} /> } }
    : {
        word: 'clause.by-sides',
        slots: { sides: <Sides block={block} />, first: <FirstSide block={block} /> },
      },
  { word: 'clause.side-change', slots: { change: 'sideChangeMs' } },
];
const leadIn: Clause = { word: 'clause.lead-in', slots: { lead: 'leadInMs' } };
const between = (key: string): Clause => ({ word: 'clause.between', slots: { rest: key } });

const spoken = (
  node: ReactNode,
  figure: string,
  isSet: boolean,
  word: 'shown' | 'said' | 'asked' | 'answered',
): Clause =>
  isSet
    ? { word: `clause.${word}-set`, slots: { by: node, length: figure } }
    : { word: `clause.${word}`, slots: { by: node } };

const clauses: { [K in BlockKind]: (block: BlockOf<K>) => Clause[] } = {
  talk: (block) => [
    spoken(
      <SpokenLength
        block={block}
        figure="fixedMs"
        alone={{ ...block, pauseAfter: null }}
        words="words"
      />,
      'fixedMs',
      block.fixedMs !== null,
      'said',
    ),
  ],
  intervals: (block) => [
    block.rests?.by === 'breaths'
      ? {
          word: 'clause.rounds-breaths',
          by: { n: block.rounds },
          slots: { rounds: 'rounds', work: 'workMs', breaths: 'rests.breaths' },
        }
      : block.exercises.every(({ amount }) => amount)
        ? {
            word: 'clause.rounds-amounts',
            by: { n: block.rounds },
            slots: { rounds: 'rounds', rest: 'restMs' },
          }
        : {
            word: 'clause.rounds',
            by: { n: block.rounds },
            slots: { rounds: 'rounds', work: 'workMs', rest: 'restMs' },
          },
    {
      word: 'clause.breath',
      slots: { in: 'rests.breathInMs', out: 'rests.breathOutMs' },
    },
    { word: 'clause.between-rounds', slots: { rest: 'restBetweenRoundsMs' } },
    block.sets > 1
      ? {
          word: 'clause.sets-between',
          by: { n: block.sets },
          slots: { sets: 'sets', rest: 'restBetweenSetsMs' },
        }
      : { word: 'clause.sets', by: { n: block.sets }, slots: { sets: 'sets' } },
    ...(block.exercises.some(({ sides }) => sides === 'halves' || sides === 'rounds')
      ? [{ word: 'clause.first-side', slots: { first: <FirstSide block={block} /> } } as Clause]
      : []),
    leadIn,
  ],
  reps: (block) => [
    {
      word: 'clause.reps',
      by: { n: block.sets, r: block.reps },
      slots: { sets: 'sets', reps: 'reps' },
    },
    ...sidesClause(block),
    {
      word: 'clause.tempo',
      slots: {
        down: 'tempo.downMs',
        hold: 'tempo.holdMs',
        up: 'tempo.upMs',
        top: 'tempo.topHoldMs',
      },
    },
    ...(block.sets > 1
      ? [
          {
            word: 'clause.between-ends',
            slots: { rest: 'restBetweenSetsMs', by: <RestsEnd block={block} /> },
          } as Clause,
        ]
      : []),
    leadIn,
  ],
  hold: (block) => {
    const by = (
      <Value
        block={block}
        field="by"
        label={teacherText('clause.held-for')}
        choices={[
          ['seconds', teacherText('clause.seconds')],
          ['breaths', teacherText('clause.breaths')],
        ]}
      />
    );
    return [
      {
        word: 'clause.holds',
        by: { n: block.holds },
        slots: { holds: 'holds', much: block.by === 'breaths' ? 'breaths' : 'holdMs', by },
      },
      ...sidesClause(block),
      { word: 'clause.breath', slots: { in: 'breathInMs', out: 'breathOutMs' } },
      between('restMs'),
      {
        word: 'clause.clock',
        slots: {
          count: (
            <Value
              block={block}
              field="count"
              label={teacherText('clause.clock-name')}
              choices={[
                ['down', teacherText('clause.clock-down')],
                ['up', teacherText('clause.clock-up')],
              ]}
            />
          ),
        },
      },
      leadIn,
    ];
  },
  counts: (block) => [
    {
      word: 'clause.counts',
      by: { n: block.times },
      slots: { times: 'times', bpm: 'bpm' },
    },
    { word: 'clause.count-in', by: { n: block.countIn }, slots: { countIn: 'countIn' } },
    { word: 'clause.bar', slots: { bar: <Bar block={block} /> } },
    { word: 'clause.up-to', slots: { upTo: 'upTo' } },
  ],
  routine: (block) => {
    const grow = (
      <Value
        block={block}
        field="grow"
        label={teacherText('routine.grow')}
        choices={growths.map((one) => [one, teacherText(`routine.grow-${one}`)] as const)}
      />
    );
    return [
      block.grow === 'whole'
        ? { word: 'clause.whole', slots: { grow, times: 'wholeTimes' } }
        : { word: 'clause.grows', slots: { grow, each: 'timesEach', whole: 'wholeTimes' } },
      {
        word: 'clause.between-ends',
        slots: { rest: 'restMs', by: <RestsEnd block={block} /> },
      },
      { word: 'clause.up-to', slots: { upTo: 'upTo' } },
      ...(block.moves.length > 1
        ? [{ word: 'clause.stem', slots: { stem: <Stem block={block} /> } } as Clause]
        : []),
      leadIn,
    ];
  },
  laps: (block) => [
    { word: 'clause.laps', by: { n: block.laps }, slots: { laps: 'laps', lap: 'lapMs' } },
    between('restMs'),
    { word: 'clause.tokens', by: { n: block.tokens }, slots: { tokens: 'tokens' } },
    leadIn,
  ],
  game: (block) => {
    const goal = (
      <Value
        block={block}
        field="goal"
        label={teacherText('clause.played')}
        choices={[
          ['clock', teacherText('clause.played-clock')],
          ['target', teacherText('clause.played-target')],
        ]}
      />
    );
    return [
      block.goal === 'target'
        ? {
            word: 'clause.tries-target',
            by: { n: block.tries },
            slots: { tries: 'tries', goal, target: 'target', play: 'playMs' },
          }
        : {
            word: 'clause.tries',
            by: { n: block.tries },
            slots: { tries: 'tries', goal, play: 'playMs' },
          },
      {
        word: 'clause.scoring',
        slots: {
          scoring: (
            <Value
              block={block}
              field="scoring"
              label={teacherText('clause.score')}
              choices={(['count', 'time', 'points', 'streak'] as const).map(
                (one) => [one, teacherText(`clause.score-${one}`)] as const,
              )}
            />
          ),
          score: 'scoreMs',
        },
      },
      between('restMs'),
      spoken(
        <SpokenLength block={block} figure="explainMs" alone={block} words="words" />,
        'explainMs',
        block.explainMs !== null,
        'said',
      ),
      leadIn,
    ];
  },
  called: (block) => [
    {
      word: 'clause.calls',
      slots: { calls: 'calls', least: 'gapMinMs', most: 'gapMaxMs' },
    },
    { word: 'clause.each-at-least', by: { n: block.minEach }, slots: { each: 'minEach' } },
    { word: 'clause.order', slots: { seed: 'seed' } },
    { word: 'clause.trial', slots: { trial: 'trial' } },
    { word: 'clause.without', slots: { without: 'leader.without' } },
    leadIn,
  ],
  question: (block) => {
    const alone = { ...block, thinkMs: 0, pauseAfter: null };
    return [
      { word: 'clause.think', slots: { think: 'thinkMs' } },
      spoken(
        <SpokenLength
          block={block}
          figure="askMs"
          alone={{ ...alone, answerMs: 0 }}
          words="words"
        />,
        'askMs',
        block.askMs !== null,
        'asked',
      ),
      spoken(
        <SpokenLength
          block={block}
          figure="answerMs"
          alone={{ ...alone, script: '', question: '', askMs: 0 }}
          words="words"
        />,
        'answerMs',
        block.answerMs !== null,
        'answered',
      ),
    ];
  },
  card: (block) => [
    {
      word: 'clause.about',
      slots: {
        about: (
          <Value
            block={block}
            field="about"
            label={teacherText('clause.about-name')}
            choices={(['kit', 'space', 'rules', 'other'] as const).map(
              (one) => [one, teacherText(`clause.about-${one}`)] as const,
            )}
          />
        ),
      },
    },
    spoken(
      <SpokenLength
        block={block}
        figure="fixedMs"
        alone={{ ...block, pauseAfter: null }}
        words="reading"
      />,
      'fixedMs',
      block.fixedMs !== null,
      'shown',
    ),
  ],
};

/** The sentence a block of its kind is said in. */
export const clausesOf = <K extends BlockKind>(block: BlockOf<K>): Clause[] =>
  (clauses[block.kind] as (block: BlockOf<K>) => Clause[])(block);
