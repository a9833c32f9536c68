import { readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { assemble } from '../assembly/index.ts';
import {
  chaptersText,
  kitCsv,
  planMarkdown,
  runSheetCsv,
  seriesCalendar,
} from '../formats/index.ts';
import {
  blockKinds,
  blocksOf,
  countLanguages,
  makeBlock,
  makeKit,
  makeLesson,
  makeSeries,
  type Block,
  type Lesson,
} from '../lesson/index.ts';
import { sceneAt } from '../overlay/index.ts';
import { blockSummary, layOutWeeks, runSheet, scheduleLesson } from '../schedule/index.ts';
import { calledNumber, countInEvents, pacerEvents, prompterOf } from '../script/index.ts';
import { counter } from '../testing/arbitrary.ts';
import { wordsSaid } from '../testing/catalogues.ts';
import { lessonLanguages } from '../words/index.ts';
import { scorePrompts } from './index.ts';

/** Stands for everything a teacher typed: a word of no language. */
const TYPED = '§§';
const LETTERS = /\p{L}[\p{L}\p{M}’'-]*/gu;
const wordsIn = (text: string) => text.toLowerCase().match(LETTERS) ?? [];

const catalogue = (name: string, language: string) =>
  Object.values(
    JSON.parse(
      readFileSync(path.join(import.meta.dirname, '../words', name, `${language}.json`), 'utf8'),
    ) as Record<string, string>,
  );

/** Every word the program may say in a language: its catalogues, its numbers, and units. */
function wordsOf(language: string): Set<string> {
  const counts = countLanguages.find((one) => one === language) ?? 'en';
  const numbers = Array.from({ length: 100 }, (_, i) =>
    calledNumber(i + 1, { language: counts, own: [] }),
  );
  return new Set(
    [
      ...catalogue('lesson', language).map(wordsSaid),
      ...catalogue('paper', language).map(wordsSaid),
      ...numbers,
      // Units, and the letters that name the moves of a routine.
      's min a b c',
    ].flatMap(wordsIn),
  );
}

const texts = (value: unknown): string[] =>
  typeof value === 'string'
    ? [value]
    : typeof value === 'object' && value !== null
      ? Object.values(value).flatMap(texts)
      : [];

/** Blocks of every kind and with everything in them that brings words of the program's own. */
function blocksIn(language: string): Block[] {
  const makeId = counter();
  const made = blockKinds.map((kind) => makeBlock(kind, makeId, language));
  const full = made.flatMap((block): Block[] => {
    const told: Block = {
      ...block,
      script: block.kind === 'talk' ? `${TYPED}. ${TYPED}.` : '',
      kit: (['each', 'pair', 'group'] as const).map((share, i) => ({
        ...makeKit(TYPED, makeId),
        share,
        quantity: i + 1,
        standIn: TYPED,
      })),
      pauseAfter: { practiceMs: 60_000, signMs: 5_000, prompt: '' },
      levels: [
        { id: makeId(), form: 'easier' as const, text: TYPED, rule: '', target: null },
        { id: makeId(), form: 'harder' as const, text: TYPED, rule: '', target: null },
      ],
    };
    const more: Partial<Record<Block['kind'], object[]>> = {
      intervals: [
        {
          sets: 2,
          restBetweenRoundsMs: 10_000,
          demo: { times: 1, speed: 'full', onceMs: 2_000 },
          exercises: (['halves', 'rounds'] as const).map((sides) => ({
            id: makeId(),
            title: '',
            movement: 'other',
            sides,
          })),
        },
      ],
      reps: [
        {
          sets: 2,
          parts: { names: [TYPED], partMs: 2_000, timesEach: 1, joinedMs: 3_000, joinedTimes: 1 },
        },
        { sides: 'alternating' },
      ],
      hold: [{ by: 'breaths', holds: 2 }, { count: 'up' }],
      routine: [{ grow: 'new-only' }, { grow: 'backwards' }],
      game: [
        { goal: 'target' },
        ...(['time', 'points', 'streak'] as const).map((scoring) => ({ scoring })),
      ],
      talk: [{ fixedMs: 4_000 }],
    };
    return [
      told,
      ...(more[block.kind] ?? []).map(
        (variant) => ({ ...told, id: makeId(), ...variant }) as Block,
      ),
    ];
  });
  return full;
}

function lessonIn(language: string): Lesson {
  const lesson = makeLesson(TYPED, counter());
  const counts = countLanguages.find((one) => one === language) ?? 'en';
  return {
    ...lesson,
    settings: { ...lesson.settings, language, counts: { language: counts, own: [] } },
    finish: {
      ...lesson.finish,
      look: {
        ...lesson.finish.look,
        sides: true,
        boards: ['chapter', 'name', 'kit', 'floor', 'level', 'strip'],
      },
    },
    sections: [{ id: 's', title: '', blocks: blocksIn(language) }],
  };
}

/** All a lesson shows, says and prints, by where it stands. */
function everythingOf(lesson: Lesson): [string, string][] {
  const { language } = lesson.settings;
  const cut = assemble(lesson, new Map());
  const schedule = scheduleLesson(lesson);
  const blocks = blocksOf(lesson);
  const series = { ...makeSeries(TYPED), startsOn: '2026-09-07', weekdays: [1, 3] };
  const calendar = seriesCalendar(
    series,
    layOutWeeks(series),
    new Map([[1, { title: '', outcome: '', studentMs: 1, kit: [TYPED] }]]),
    's',
    new Date(0),
    language,
  );
  const seen: [string, string][] = [];
  // Names of kinds and slots are no words that are read.
  const isRead = (key: string) =>
    !['slot', 'kind', 'phase', 'moment', 'seen', 'side', 'form', 'tone', 'words'].includes(key);
  const read = (value: object): string[] =>
    Object.entries(value).flatMap(([key, part]): string[] =>
      !isRead(key)
        ? []
        : typeof part === 'object' && part !== null
          ? read(part as object)
          : texts(part),
    );
  for (let ms = 0; ms < cut.durationMs; ms += 500) {
    const { items, card, caption } = sceneAt(cut, ms);
    for (const item of items)
      for (const text of read(item)) seen.push([`picture, ${item.slot}`, text]);
    for (const text of [...read(card ?? {}), ...(caption ?? [])]) seen.push(['card', text]);
  }
  const files = [
    ['run sheet', runSheetCsv(schedule, language)],
    ['kit list', kitCsv(schedule, language)],
    ['plan', planMarkdown(lesson, schedule)],
    ['chapters', chaptersText(cut)],
    ['calendar', calendar.replace(/^(?!SUMMARY|DESCRIPTION| ).*$|^\w+:|\\n/gm, '')],
  ] as const;
  return [
    ...seen,
    ...files.map(([where, text]): [string, string] => [where, text]),
    ...blocks.flatMap((block) =>
      [...pacerEvents(block, lesson), ...countInEvents(block, lesson)].map(
        ({ say }): [string, string] => [`pacer, ${block.kind}`, say],
      ),
    ),
    ...prompterOf(lesson).flatMap(({ lines }) =>
      lines.map(({ text }): [string, string] => ['prompter', text]),
    ),
    ...runSheet(schedule, language).map(({ text }): [string, string] => ['run sheet', text]),
    ...blocks.map((block): [string, string] => [
      `summary, ${block.kind}`,
      blockSummary(block, language),
    ]),
    ...scorePrompts(lesson).map(({ title }): [string, string] => ['what is asked', title]),
  ];
}

describe.each(['en', ...lessonLanguages])('a lesson in %s', (language) => {
  it('shows, says and prints no word of another language, whatever its blocks', () => {
    const known = wordsOf(language);
    const lesson = lessonIn(language);
    const everything = everythingOf(lesson);
    const strange = everything.flatMap(([where, text]) =>
      wordsIn(text).flatMap((word) => (known.has(word) ? [] : [`${where}: ${word}`])),
    );
    expect([...new Set(strange)]).toEqual([]);
    // Each place has said something, so that nothing passes by being silent.
    const places = new Set(
      everything
        .filter(([, text]) => wordsIn(text).length > 0)
        .map(([where]) => where.split(',')[0]),
    );
    expect([...places].sort()).toEqual(
      [
        'card',
        'kit list',
        'pacer',
        'picture',
        'plan',
        'prompter',
        'run sheet',
        'summary',
        'what is asked',
        'chapters',
        'calendar',
      ].sort(),
    );
  });
});
