import { blocksOf, changeBlock, type Block, type Lesson } from '../lesson/index.ts';
import { fixedSides, paceOf } from '../script/index.ts';
import { lengthText } from '../time/index.ts';
import { quoted, type Found } from './finding.ts';

/** Texts of a block that name a side of the body, by what they are. */
function sidedTexts(
  block: Block,
): { where: string; text: string; write: (draft: Block, text: string) => void }[] {
  return [
    { where: 'script', text: block.script, write: (draft, text) => void (draft.script = text) },
    ...block.cues.map(({ id, text }) => ({
      where: `cue “${text}”`,
      text,
      write: (draft: Block, next: string) =>
        draft.cues.forEach((cue) => void (cue.id === id && (cue.text = next))),
    })),
  ];
}

/** Left and right of a hand said so that they hold for either hand, in a skill that has one. */
export function sidesForEitherHand({ lesson }: { lesson: Lesson }): Found[] {
  return blocksOf(lesson).flatMap((block) =>
    sidedTexts(block).flatMap(({ where, text, write }): Found[] => {
      const [fixed] = fixedSides(text);
      if (!fixed) return [];
      const { words, instead, at } = fixed;
      return [
        {
          key: `hand ${block.id} ${where} ${words}`.slice(0, 200),
          harm: 'gets lost',
          blockId: block.id,
          atMs: null,
          say: `“${words}” in the ${where} of ${quoted(block)} is wrong for the left-handed.`,
          why: 'Everything is said for the right-handed and has to be turned round in the head (common practice).',
          bench: 'script',
          remedy:
            instead === null
              ? null
              : {
                  label: `Say “${instead}”`,
                  change: changeBlock(block.id, (draft) =>
                    write(draft, text.slice(0, at) + instead + text.slice(at + words.length)),
                  ),
                },
        },
      ];
    }),
  );
}

/** What is said fits into the block's time. */
export function wordsFit({ lesson }: { lesson: Lesson }): Found[] {
  return blocksOf(lesson).flatMap((block): Found[] => {
    const { words, spokenMs, roomMs } = paceOf(block, lesson);
    if (roomMs === null || spokenMs <= roomMs) return [];
    return [
      {
        key: `words ${block.id}`,
        harm: 'runs out of time',
        blockId: block.id,
        atMs: null,
        say: `${quoted(block)} has ${words} words, which take ${lengthText(spokenMs)}, and ${lengthText(roomMs)} for them.`,
        why: `At your pace of ${lesson.settings.speechWpm} words a minute.`,
        bench: 'script',
        remedy: null,
      },
    ];
  });
}

const NAMED_WHY =
  'A first name, a role or a code is enough on a video that leaves the school (your local policy comes first).';

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
  const own =
    block.kind === 'question'
      ? [block.question, block.answer]
      : block.kind === 'card'
        ? block.lines
        : [];
  return [
    block.script,
    ...own,
    ...block.cues.map(({ text }) => text),
    ...block.cautions,
    block.pauseAfter?.prompt ?? '',
  ];
}

/**
 * Nobody is named in full in what is said or shown. What the lesson itself is called, its series,
 * skills and parts are no people.
 */
export function nobodyNamedInText({ lesson }: { lesson: Lesson }): Found[] {
  if (CAPITAL_NOUNS.test(lesson.settings.language)) return [];
  const blocks = blocksOf(lesson);
  const titles = [
    lesson.title,
    lesson.series.name,
    ...lesson.sections.map(({ title }) => title),
    ...blocks.flatMap(({ title, skill, kit }) => [
      title,
      skill,
      ...kit.flatMap(({ name, standIn }) => [name, standIn]),
    ]),
    ...lesson.glossary.map(({ term }) => term),
  ]
    .join('\n')
    .toLowerCase();
  return blocks.flatMap((block): Found[] => {
    const name = toldTexts(block)
      .flatMap((text) => [...text.matchAll(CAPITALS_WITHIN)].map(([words]) => words))
      .find(
        (words) =>
          words.includes(' ') &&
          words.split(' ').length <= MOST_NAMES &&
          !titles.includes(words.toLowerCase()),
      );
    if (name === undefined) return [];
    return [
      {
        key: `named ${block.id} ${name}`,
        harm: 'is named',
        blockId: block.id,
        atMs: null,
        say: `“${name}” in the words of ${quoted(block)} looks like a full name.`,
        why: NAMED_WHY,
        bench: 'script',
        remedy: null,
      },
    ];
  });
}

/** Nobody is named in full on screen. */
export function nobodyNamed({ lesson }: { lesson: Lesson }): Found[] {
  return blocksOf(lesson).flatMap((block): Found[] => {
    const name = block.shownBy.trim();
    if (!FULL_NAME.test(name)) return [];
    const [first = ''] = name.split(' ');
    return [
      {
        key: `name ${block.id}`,
        harm: 'is named',
        blockId: block.id,
        atMs: null,
        say: `The name tag of ${quoted(block)} looks like a full name: “${name}”.`,
        why: NAMED_WHY,
        bench: 'plan',
        remedy: {
          label: `Show “${first}” only`,
          change: changeBlock(block.id, (draft) => void (draft.shownBy = first)),
        },
      },
    ];
  });
}

/** Music is used by right. */
export function musicLicensed({ lesson }: { lesson: Lesson }): Found[] {
  const { music } = lesson.finish.sound;
  if (!music || music.licence.trim() !== '') return [];
  return [
    {
      key: 'music licence',
      harm: 'is named',
      blockId: null,
      atMs: null,
      say: 'The music has no word on its licence.',
      why: 'Wherever the lesson is published, somebody may ask by what right it is used.',
      bench: 'assemble',
      remedy: {
        label: 'Leave the music out',
        change: (draft: Lesson) => void (draft.finish.sound.music = null),
      },
    },
  ];
}
