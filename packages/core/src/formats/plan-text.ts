import Papa from 'papaparse';
import { kitLedger } from '../ledger/index.ts';
import {
  allCautions,
  allForms,
  allKit,
  cueTexts,
  exerciseTitles,
  kitText,
  wayTexts,
  type Block,
  type Lesson,
} from '../lesson/index.ts';
import { runSheet, type Schedule } from '../schedule/index.ts';
import { clockText, lengthText } from '../time/index.ts';
import { paperWord, type PaperWord, type Values } from '../words/index.ts';

/** Cells a spreadsheet would reckon are kept as text; lines end as RFC 4180 wants. */
const CSV = { escapeFormulae: true, newline: '\r\n' };

const tableOf = (fields: readonly string[], data: readonly unknown[][]) =>
  Papa.unparse({ fields: [...fields], data: [...data] }, CSV);

/**
 * The run sheet as a table in the lesson's language: both clocks, level, words and length.
 * Comma-separated (RFC 4180).
 */
export function runSheetCsv(schedule: Schedule, language: string): string {
  const say = (word: PaperWord) => paperWord(language, word);
  return tableOf(
    [
      say('column.video'),
      say('column.student'),
      say('column.level'),
      say('column.what'),
      say('column.seconds'),
    ],
    runSheet(schedule, language).map(({ videoMs, studentMs, level, text, durationMs }) => [
      clockText(videoMs),
      clockText(studentMs),
      say(`level.${level}`),
      text,
      durationMs / 1000,
    ]),
  );
}

/**
 * What is needed, as a table for families in the lesson's language: what, how many, for whom,
 * stand-ins, first needed.
 */
export function kitCsv(schedule: Schedule, language: string): string {
  const say = (word: PaperWord) => paperWord(language, word);
  return tableOf(
    [
      say('column.what'),
      say('column.how-many'),
      say('column.for'),
      say('column.stand-in'),
      say('column.needed-in'),
      say('column.needed-at'),
    ],
    kitLedger(schedule, language).flatMap(({ name, needs, standIns, neededIn }) =>
      needs.map(({ share, quantity }) => [
        name,
        quantity,
        say(`share.${share}`),
        standIns.join(' / '),
        neededIn?.title ?? '',
        neededIn ? clockText(neededIn.atMs) : '',
      ]),
    ),
  );
}

/** Text that Markdown would take for marks stands as it is. */
function plain(text: string): string {
  return text
    .replace(/([\\`*_{}[\]<>#|~])/g, '\\$1')
    .replace(/\s*\n\s*/g, ' ')
    .trim();
}

const listOf = (title: string, items: readonly string[]) =>
  items.length === 0 ? [] : [`${title}:`, '', ...items.map((item) => `- ${item}`), ''];

function blockLines(
  block: Block,
  lesson: Lesson,
  { startMs: atMs, durationMs }: { startMs: number; durationMs: number },
): string[] {
  const { language } = lesson.settings;
  const say = (word: PaperWord, values?: Values) => paperWord(language, word, values);
  const titles = exerciseTitles(block, language);
  const levels = allForms(block).map(
    ({ form, text, rule, exercise }) =>
      `${exercise === null ? '' : `${plain(titles[exercise] ?? '')}, `}${say(`form.${form}`)}: ` +
      `${plain(text)}${rule ? ` (${plain(rule)})` : ''}`,
  );
  const then = block.pauseAfter
    ? `${say('plan.then-practise', { length: lengthText(block.pauseAfter.practiceMs) })}` +
      ` ${plain(block.pauseAfter.prompt)}`
    : '';
  return [
    `### ${clockText(atMs)} ${plain(block.title)} (${lengthText(durationMs)})`,
    '',
    ...(block.script.trim() === '' ? [] : [plain(block.script), '']),
    ...listOf(say('heading.cues'), cueTexts(block, language).map(plain)),
    ...listOf(
      say('heading.kit'),
      allKit(block).map((item) => plain(kitText(item, language))),
    ),
    ...listOf(
      say('heading.care'),
      allCautions(block)
        .map(plain)
        .filter((text) => text !== ''),
    ),
    ...listOf(say('heading.forms'), levels),
    ...listOf(say('heading.players'), wayTexts(block, lesson).map(plain)),
    ...(then === '' ? [] : [then.trim(), '']),
  ];
}

/**
 * The plan to read or to put on a page, in the lesson's language: what is aimed at, how long it is,
 * and every block with its words, cues, kit and care. Markdown.
 */
export function planMarkdown(lesson: Lesson, schedule: Schedule): string {
  const { series, outcome, audience, settings } = lesson;
  const { language } = settings;
  const say = (word: PaperWord, values?: Values) => paperWord(language, word, values);
  const place = [series.name, series.week === null ? '' : say('place.week', { week: series.week })]
    .filter((text) => text !== '')
    .map(plain);
  const head = [
    `# ${plain(lesson.title)}`,
    '',
    ...(place.length > 0 ? [place.join(', '), ''] : []),
    ...(outcome === '' ? [] : [plain(outcome), '']),
    [
      say('place.ages', { from: audience.ageFrom, to: audience.ageTo }),
      say('plan.lengths', {
        video: clockText(schedule.videoMs),
        student: clockText(schedule.studentMs),
      }),
    ].join(' · '),
    '',
  ];
  const body = schedule.sections.flatMap(({ section, blocks }) => [
    `## ${plain(section.title)}`,
    '',
    ...blocks.flatMap(({ block, startMs, durationMs }) =>
      blockLines(block, lesson, { startMs, durationMs }),
    ),
  ]);
  return `${[...head, ...body].join('\n').trimEnd()}\n`;
}
