import Papa from 'papaparse';
import { kitLedger } from '../ledger/index.ts';
import { kitText, type Block, type Lesson } from '../lesson/index.ts';
import { runSheet, type Schedule } from '../schedule/index.ts';
import { clockText, lengthText } from '../time/index.ts';

/** Cells a spreadsheet would reckon are kept as text; lines end as RFC 4180 wants. */
const CSV = { escapeFormulae: true, newline: '\r\n' };

/** The run sheet as a table: both clocks, level, words and length. Comma-separated (RFC 4180). */
export function runSheetCsv(schedule: Schedule): string {
  const lines = runSheet(schedule).map(({ videoMs, studentMs, level, text, durationMs }) => ({
    video: clockText(videoMs),
    student: clockText(studentMs),
    level,
    what: text,
    seconds: durationMs / 1000,
  }));
  return Papa.unparse(
    { fields: ['video', 'student', 'level', 'what', 'seconds'], data: lines },
    CSV,
  );
}

/** What is needed, as a table for families: what, how many, for whom, stand-ins, first needed. */
export function kitCsv(schedule: Schedule, language: string): string {
  const lines = kitLedger(schedule, language).flatMap(({ name, needs, standIns, neededIn }) =>
    needs.map(({ share, quantity }) => ({
      what: name,
      'how many': quantity,
      for: share,
      'stand-in': standIns.join(' or '),
      'needed in': neededIn?.title ?? '',
      'needed at': neededIn ? clockText(neededIn.atMs) : '',
    })),
  );
  return Papa.unparse(
    { fields: ['what', 'how many', 'for', 'stand-in', 'needed in', 'needed at'], data: lines },
    CSV,
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

function blockLines(block: Block, atMs: number, durationMs: number): string[] {
  const levels = block.levels.map(
    ({ form, text, rule }) => `${form}: ${plain(text)}${rule ? ` (${plain(rule)})` : ''}`,
  );
  return [
    `### ${clockText(atMs)} ${plain(block.title)} (${lengthText(durationMs)})`,
    '',
    ...(block.script.trim() === '' ? [] : [plain(block.script), '']),
    ...listOf(
      'Cues',
      block.cues.map(({ text }) => plain(text)).filter((text) => text !== ''),
    ),
    ...listOf(
      'Kit',
      block.kit.map((item) => plain(kitText(item))),
    ),
    ...listOf(
      'Care',
      block.cautions.map(plain).filter((text) => text !== ''),
    ),
    ...listOf('Forms', levels),
    ...(block.pauseAfter
      ? [
          `Then ${lengthText(block.pauseAfter.practiceMs)} of practice off the video. ${plain(block.pauseAfter.prompt)}`.trim(),
          '',
        ]
      : []),
  ];
}

/**
 * The plan to read or to put on a page: what is aimed at, how long it is, and every block with its
 * words, cues, kit and care. Markdown.
 */
export function planMarkdown(lesson: Lesson, schedule: Schedule): string {
  const { series, outcome, audience } = lesson;
  const place = [series.name, series.week === null ? '' : `week ${series.week}`]
    .filter((text) => text !== '')
    .map(plain);
  const head = [
    `# ${plain(lesson.title)}`,
    '',
    ...(place.length > 0 ? [place.join(', '), ''] : []),
    ...(outcome === '' ? [] : [plain(outcome), '']),
    `Ages ${audience.ageFrom} to ${audience.ageTo}. Video ${clockText(schedule.videoMs)}, with pauses ${clockText(schedule.studentMs)}.`,
    '',
  ];
  const body = schedule.sections.flatMap(({ section, blocks }) => [
    `## ${plain(section.title)}`,
    '',
    ...blocks.flatMap(({ block, startMs, durationMs }) => blockLines(block, startMs, durationMs)),
  ]);
  return `${[...head, ...body].join('\n').trimEnd()}\n`;
}
