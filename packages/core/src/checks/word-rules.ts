import {
  allCautions,
  allCues,
  allKit,
  blocksOf,
  changeBlock,
  type Block,
  type Lesson,
} from '../lesson/index.ts';
import { fixedSides, paceOf } from '../script/index.ts';
import { COMMON, type Hit } from './finding.ts';
import type { Rule, ToCheck } from './rule.ts';
import { numbersAsPlanned } from './said-numbers.ts';

/** Texts of a block that may name a side of the body; of a cue also the cue itself. */
function sidedTexts(
  block: Block,
): { cue: string | null; text: string; write: (draft: Block, text: string) => void }[] {
  return [
    { cue: null, text: block.script, write: (draft, text) => void (draft.script = text) },
    ...allCues(block).map(({ id, text }) => ({
      cue: text,
      text,
      write: (draft: Block, next: string) =>
        allCues(draft).forEach((cue) => void (cue.id === id && (cue.text = next))),
    })),
  ];
}

/** Left and right of a hand said so that they hold for either hand, in a skill that has one. */
const sidesForEitherHand = ({ lesson }: ToCheck): Hit[] =>
  blocksOf(lesson).flatMap((block) =>
    sidedTexts(block).flatMap(({ cue, text, write }): Hit[] => {
      const [fixed] = fixedSides(text);
      if (!fixed) return [];
      const { words, instead, at } = fixed;
      const where = cue === null ? 'script' : `cue “${cue}”`;
      return [
        {
          place: [block.id, where, words],
          blockId: block.id,
          figures: {
            words,
            where: cue === null ? 'script' : 'cue',
            cue: cue ?? '',
            instead: instead ?? '',
          },
          remedy:
            instead === null
              ? null
              : {
                  change: changeBlock(block.id, (draft) =>
                    write(draft, text.slice(0, at) + instead + text.slice(at + words.length)),
                  ),
                },
        },
      ];
    }),
  );

/** What is said fits into the block's time. */
const wordsFit = ({ lesson }: ToCheck): Hit[] =>
  blocksOf(lesson).flatMap((block): Hit[] => {
    const { words, spokenMs, roomMs } = paceOf(block, lesson);
    if (roomMs === null || spokenMs <= roomMs) return [];
    const figures = { n: words, spokenMs, roomMs, wpm: lesson.settings.speechWpm };
    return [{ place: [block.id], blockId: block.id, figures }];
  });

/** A first and a family name look like this; a role does not. */
const FULL_NAME = /^\p{Lu}\p{Ll}+ (\p{Lu}\p{Ll}+[- ]?)+$/u;

/**
 * Words with capitals beside each other within a sentence; at its beginning the first word is
 * capital anyway.
 */
const CAPITALS_WITHIN = /(?<=[\p{Ll}\p{N},] )\p{Lu}\p{Ll}+(?:[ -]\p{Lu}\p{Ll}+)+/gu;
/** People have two or three names; what has more is called something else. */
const MOST_NAMES = 3;
/** Languages that write every noun with a capital: two of them are no name. */
const CAPITAL_NOUNS = /^(de|lb|gsw)\b/;

/** What a student reads or hears of a block. */
function toldTexts(block: Block): string[] {
  const words =
    block.kind === 'question'
      ? [
          block.question,
          block.answer,
          ...(block.choices ?? []).flatMap(({ text, why }) => [text, why]),
        ]
      : block.kind === 'card'
        ? block.lines
        : [];
  return [
    block.script,
    ...words,
    ...allCues(block).map(({ text }) => text),
    ...allCautions(block),
    block.pauseAfter?.prompt ?? '',
  ];
}

/**
 * Nobody is named in full in what is said or shown. What the lesson itself is called, its series,
 * skills and parts are no people.
 */
function nobodyNamedInText({ lesson }: ToCheck): Hit[] {
  if (CAPITAL_NOUNS.test(lesson.settings.language)) return [];
  const blocks = blocksOf(lesson);
  const titles = [
    lesson.title,
    lesson.series.name,
    ...lesson.sections.map(({ title }) => title),
    ...blocks.flatMap((block) => [
      block.title,
      block.skill,
      ...allKit(block).flatMap(({ name, standIn }) => [name, standIn]),
    ]),
    ...lesson.glossary.map(({ term }) => term),
  ]
    .join('\n')
    .toLowerCase();
  return blocks.flatMap((block): Hit[] => {
    const name = toldTexts(block)
      .flatMap((text) => [...text.matchAll(CAPITALS_WITHIN)].map(([words]) => words))
      .find(
        (words) =>
          words.includes(' ') &&
          words.split(' ').length <= MOST_NAMES &&
          !titles.includes(words.toLowerCase()),
      );
    if (name === undefined) return [];
    return [{ place: [block.id, name], blockId: block.id, figures: { name } }];
  });
}

/** Nobody is named in full on screen. */
const nobodyNamed = ({ lesson }: ToCheck): Hit[] =>
  blocksOf(lesson).flatMap((block): Hit[] => {
    const name = block.shownBy.trim();
    if (!FULL_NAME.test(name)) return [];
    const [first = ''] = name.split(' ');
    return [
      {
        place: [block.id],
        blockId: block.id,
        figures: { name, first },
        remedy: { change: changeBlock(block.id, (draft) => void (draft.shownBy = first)) },
      },
    ];
  });

/** Music is used by right. */
function musicLicensed({ lesson }: ToCheck): Hit[] {
  const { music } = lesson.finish.sound;
  if (!music || music.licence.trim() !== '') return [];
  const change = (draft: Lesson) => void (draft.finish.sound.music = null);
  return [{ place: [], blockId: null, remedy: { change } }];
}

export const wordRules: readonly Rule[] = [
  {
    id: 'hand',
    harm: 'gets lost',
    bench: 'script',
    source: COMMON,
    seenAt: ['cue'],
    run: sidesForEitherHand,
  },
  { id: 'words', harm: 'runs out of time', bench: 'script', source: null, run: wordsFit },
  { id: 'number', harm: 'gets lost', bench: 'script', source: COMMON, run: numbersAsPlanned },
  {
    id: 'name',
    harm: 'is named',
    bench: 'plan',
    source: null,
    seenAt: ['board'],
    run: nobodyNamed,
  },
  { id: 'named', harm: 'is named', bench: 'script', source: null, run: nobodyNamedInText },
  { id: 'music-licence', harm: 'is named', bench: 'assemble', source: null, run: musicLicensed },
];
