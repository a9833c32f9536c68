import {
  makeCue,
  makeKit,
  partName,
  partsOf,
  spaceText,
  type Block,
  type BlockKind,
  type BlockOf,
  type Lesson,
  regionName,
  valueName,
} from '@zest/core/lesson';
import { metsOf } from '@zest/core/ledger';
import { teacherText } from '@zest/core/words';
import type { ComponentType } from 'react';
import { makeId } from '../../../app/ids.ts';
import type { Thing } from '../../../ui/pictograms.tsx';
import { useChange } from '../../../ui/use-change.ts';
import { BlockFloor } from './BlockFloor.tsx';
import { Rules } from './CalledFigures.tsx';
import { Choices, usualChoices } from './Choices.tsx';
import { Combination, USUAL_COMBINATION } from './Combination.tsx';
import {
  Energy,
  Facing,
  Part,
  Players,
  Regions,
  Room,
  ShownBy,
  Skill,
  type BlockProps,
} from './details.tsx';
import { ExerciseName, type Single } from './ExerciseFields.tsx';
import { FigureFields } from './FigureFields.tsx';
import { FloorMarks } from './FloorMarks.tsx';
import { addRung, plainRests, RestFields, Rungs } from './IntervalsFigures.tsx';
import { CautionList, CueList, KitList, LevelList, newLevel, type ListProps } from './lists.tsx';
import { companyNames } from './names.ts';
import { PauseFigures } from './PauseFigures.tsx';
import { Showing, type Shown } from './Showing.tsx';
import { TaughtInParts, usualParts } from './TaughtInParts.tsx';

type TokenId =
  | 'cue'
  | 'caution'
  | 'kit'
  | 'levels'
  | 'showing'
  | 'pause'
  | 'choices'
  | 'rungs'
  | 'round-rest'
  | 'rests'
  | 'parts'
  | 'combination'
  | 'rules'
  | 'exercise'
  | 'players'
  | 'room'
  | 'floor'
  | 'part'
  | 'skill'
  | 'regions'
  | 'facing'
  | 'energy'
  | 'shown-by';

/** Something a block may have besides its figures. */
export interface Token {
  id: TokenId;
  name: string;
  mark: Thing;
  /** What it has of it, a text for each; empty: nothing. */
  has: (block: Block, lesson: Lesson) => string[];
  /** Gives a block a first one, or one more; missing where it is begun by typing. */
  begin?: (draft: Block) => void;
  /** Takes all of it away; missing where each is taken away by itself. */
  end?: (draft: Block) => void;
  Editor: ComponentType<BlockProps>;
}

const EMPTY = '…';
const texts = (items: readonly string[]) => items.map((text) => text || EMPTY);

/** A token of all kinds of blocks. */
const token = (id: TokenId, mark: Thing, rest: Omit<Token, 'id' | 'name' | 'mark'>): Token => ({
  id,
  mark,
  name: teacherText(`token.${id}`),
  ...rest,
});

type Editing<B extends Block> = ComponentType<{ block: B }>;

/** A token of some kinds only; of others there is nothing to say. */
const tokenOf = <K extends BlockKind>(
  kinds: readonly K[],
  id: TokenId,
  mark: Thing,
  {
    has,
    begin,
    end,
    Editor,
  }: {
    has: (block: BlockOf<K>) => string[];
    begin?: (draft: BlockOf<K>) => void;
    end?: (draft: BlockOf<K>) => void;
    Editor: Editing<BlockOf<K>>;
  },
): Token & { kinds: readonly BlockKind[] } => ({
  ...token(id, mark, {
    has: (block) => has(block as BlockOf<K>),
    ...(begin && { begin: (draft: Block) => begin(draft as BlockOf<K>) }),
    ...(end && { end: (draft: Block) => end(draft as BlockOf<K>) }),
    Editor: Editor as ComponentType<BlockProps>,
  }),
  kinds,
});

/** The editor of one of a block's own lists. */
const editorOf = <K extends 'cues' | 'kit' | 'cautions' | 'levels'>(
  List: ComponentType<ListProps<Block[K][number]>>,
  key: K,
) =>
  function ListEditor({ block }: BlockProps) {
    const change = useChange(block);
    return (
      <List
        items={block[key] as Block[K][number][]}
        change={(label, recipe, merge) =>
          change(label, (d) => recipe(d[key] as Block[K][number][]), merge)
        }
      />
    );
  };

function Floor({ block }: BlockProps) {
  return (
    <>
      <BlockFloor block={block} />
      <FloorMarks block={block} />
    </>
  );
}
function RoomOnFloor({ block }: BlockProps) {
  return (
    <>
      <Room block={block} />
      <BlockFloor block={block} />
    </>
  );
}

const shown: readonly Shown['kind'][] = [
  ...(['intervals', 'reps', 'hold', 'counts', 'routine', 'laps', 'game', 'called'] as const),
];
const single: readonly Single['kind'][] = ['reps', 'hold', 'laps', 'game'];

const tokens: readonly (Token & { kinds?: readonly BlockKind[] })[] = [
  token('cue', 'cue', {
    has: ({ cues }) => texts(cues.map(({ text }) => text)),
    begin: (d) => void d.cues.push(makeCue('', makeId)),
    Editor: editorOf(CueList, 'cues'),
  }),
  token('caution', 'caution', {
    has: ({ cautions }) => texts(cautions),
    begin: (d) => void d.cautions.push(''),
    Editor: editorOf(CautionList, 'cautions'),
  }),
  token('kit', 'kit', {
    has: ({ kit }) =>
      kit.map(({ name, quantity }) => `${quantity > 1 ? `${quantity} ` : ''}${name || EMPTY}`),
    begin: (d) => void d.kit.push(makeKit('', makeId)),
    Editor: editorOf(KitList, 'kit'),
  }),
  token('levels', 'levels', {
    has: ({ levels }) =>
      levels.map(({ form, text }) => `${teacherText(`level.${form}`)}: ${text || EMPTY}`),
    begin: (d) => void d.levels.push(newLevel(d.levels.length)),
    Editor: editorOf(LevelList, 'levels'),
  }),
  tokenOf(shown, 'showing', 'show', {
    has: ({ demo }) =>
      demo ? [teacherText('token.shown', { n: demo.times, speed: demo.speed })] : [],
    begin: (d) => void (d.demo ??= { times: 2, speed: 'full', onceMs: 3_000 }),
    end: (d) => void (d.demo = null),
    Editor: Showing,
  }),
  token('pause', 'pause', {
    has: ({ pauseAfter }) =>
      pauseAfter ? [teacherText('token.practise', { practiceMs: pauseAfter.practiceMs })] : [],
    begin: (d) => void (d.pauseAfter ??= { practiceMs: 120_000, signMs: 5_000, prompt: '' }),
    end: (d) => void (d.pauseAfter = null),
    Editor: PauseFigures,
  }),
  tokenOf(['question'], 'choices', 'more', {
    has: ({ choices }) => texts((choices ?? []).map(({ text }) => text)),
    begin: (d) => void (d.choices ? undefined : usualChoices(d)),
    Editor: Choices,
  }),
  tokenOf(['intervals'], 'rungs', 'ladder', {
    has: ({ ladder }) => ladder.map(({ workMs, restMs }) => `${workMs / 1000}/${restMs / 1000}`),
    begin: addRung,
    end: (d) => void (d.ladder = []),
    Editor: Rungs,
  }),
  tokenOf(['intervals'], 'round-rest', 'clock', {
    has: ({ restBetweenRoundsMs, rounds }) =>
      restBetweenRoundsMs !== null && rounds > 1
        ? [teacherText('token.rounds-apart', { restMs: restBetweenRoundsMs })]
        : [],
    begin: (d) => void (d.restBetweenRoundsMs ??= 60_000),
    end: (d) => void (d.restBetweenRoundsMs = null),
    Editor: ({ block }) => <FigureFields block={block} keys={['restBetweenRoundsMs']} />,
  }),
  tokenOf(['intervals'], 'rests', 'clock', {
    has: ({ rests }) =>
      rests
        ? [
            [
              teacherText(`rests.by-${rests.by}`),
              ...(rests.by === 'ready' || rests.does === 'rest'
                ? []
                : [
                    rests.does === 'task'
                      ? rests.task || EMPTY
                      : teacherText(`rests.does-${rests.does}`),
                  ]),
            ].join(', '),
          ]
        : [],
    begin: (d) => void (d.rests ??= { ...plainRests, by: 'ready' }),
    end: (d) => void delete d.rests,
    Editor: RestFields,
  }),
  tokenOf(['reps'], 'parts', 'ladder', {
    has: ({ parts }) => (parts ? [teacherText('token.in-parts', { n: parts.names.length })] : []),
    begin: (d) => (d.parts ? undefined : usualParts(d)),
    end: (d) => void (d.parts = null),
    Editor: TaughtInParts,
  }),
  tokenOf(['routine'], 'combination', 'sides', {
    has: ({ combination }) =>
      combination ? [teacherText(`combination.${combination.sides}`)] : [],
    begin: (d) => void (d.combination ??= structuredClone(USUAL_COMBINATION)),
    end: (d) => void delete d.combination,
    Editor: Combination,
  }),
  tokenOf(['called'], 'rules', 'player', {
    has: ({ base, trial, score, leader }) => [
      ...(base ? [base.title || teacherText('called.between-move')] : []),
      ...(trial === undefined ? [] : [teacherText('called.try-first')]),
      ...(score ? [teacherText(`called.score-${score.kind}`)] : []),
      ...(leader ? [leader.words || EMPTY] : []),
    ],
    Editor: Rules,
  }),
  tokenOf(single, 'exercise', 'player', {
    has: ({ exercise }) => (exercise.title === '' ? [] : [exercise.title]),
    end: (d) => void (d.exercise.title = ''),
    Editor: ExerciseName,
  }),
  token('players', 'player', {
    has: ({ company, ways }) =>
      company.kind === 'alone' && company.players === 1 && !ways
        ? []
        : [
            companyNames.find(([kind]) => kind === company.kind)?.[1] ?? '',
            ...(ways ? [teacherText('token.ways', { n: ways.length })] : []),
          ],
    Editor: Players,
  }),
  token('room', 'room', {
    has: ({ footprint }, { settings: { units } }) =>
      footprint
        ? [`${spaceText(footprint.widthCm, units)} × ${spaceText(footprint.depthCm, units)}`]
        : [],
    begin: (d) => void (d.footprint ??= { widthCm: 150, depthCm: 150, heightCm: 220 }),
    end: (d) => void (d.footprint = null),
    Editor: RoomOnFloor,
  }),
  token('floor', 'room', {
    has: ({ floor }) => texts(floor.map(({ label }) => label)),
    Editor: Floor,
  }),
  token('part', 'clock', {
    has: ({ id }, lesson) => {
      const { part, isGuess } = partsOf(lesson).get(id) ?? { part: 'other', isGuess: false };
      return part === 'other'
        ? []
        : [isGuess ? teacherText('part.guess', { part: partName(part) }) : partName(part)];
    },
    end: (d) => void (d.part = 'other'),
    Editor: Part,
  }),
  token('skill', 'skill', {
    has: ({ skill }) => (skill === '' ? [] : [skill]),
    end: (d) => void (d.skill = ''),
    Editor: Skill,
  }),
  token('regions', 'player', {
    has: ({ regions }) => (regions.length > 0 ? [regions.map(regionName).join(', ')] : []),
    end: (d) => void (d.regions = []),
    Editor: Regions,
  }),
  token('facing', 'show', {
    has: ({ facing }) =>
      facing.performer === 'camera' && facing.viewer === 'screen'
        ? []
        : [
            teacherText('token.faces', {
              performer: valueName(facing.performer),
              viewer: valueName(facing.viewer),
            }),
          ],
    end: (d) => void (d.facing = { performer: 'camera', viewer: 'screen' }),
    Editor: Facing,
  }),
  token('energy', 'clock', {
    has: (block) =>
      block.mets === null ? [] : [teacherText('token.mets', { n: Math.round(metsOf(block)) })],
    begin: (d) => void (d.mets ??= Math.round(metsOf(d))),
    end: (d) => void (d.mets = null),
    Editor: Energy,
  }),
  token('shown-by', 'player', {
    has: ({ shownBy }) => (shownBy === '' ? [] : [shownBy]),
    end: (d) => void (d.shownBy = ''),
    Editor: ShownBy,
  }),
];

/** What a block of this kind may have, in the order it is thought of. */
export const tokensFor = (kind: BlockKind): readonly Token[] =>
  tokens.filter(({ kinds }) => kinds === undefined || kinds.includes(kind));
