import Papa from 'papaparse';
import { sides, type Side } from '../lesson/index.ts';
import { teacherText } from '../words/index.ts';
import { readSpoken } from './codes.ts';
import type { Measure } from './entry.ts';
import { readNumber } from './words.ts';

/** A pasted or opened table, as text. */
export interface Table {
  header: string[];
  rows: string[][];
}

/** Rows of one paste; more are a mistake or two. */
export const MOST_ROWS = 2_000;

/**
 * Reads a table as it comes from a spreadsheet (tabs) or a CSV file (commas, semicolons), with a
 * header.
 * @throws Error saying what is missing
 */
export function readTable(text: string): Table {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, '').trim(), {
    skipEmptyLines: 'greedy',
  });
  const [header, ...rows] = data.map((row) => row.map((cell) => cell.trim()));
  if (!header || rows.length === 0) throw new Error(teacherText('table.none'));
  if (rows.length > MOST_ROWS)
    throw new Error(teacherText('table.long', { n: rows.length, most: MOST_ROWS }));
  return { header, rows };
}

/** Which column holds what, by its place; null for none. */
export interface Columns {
  nickname: number | null;
  value: number | null;
  side: number | null;
}

const HEADINGS: Readonly<Record<keyof Columns, RegExp>> = {
  nickname:
    /^(nick ?name|name|code|student|who|spitzname|schüler(in)?|wer|apodo|nombre|código|alumn[oa]|quién)$/i,
  value:
    /^(value|number|score|count|time|points|result|how many|wert|zahl|anzahl|zeit|punkte|ergebnis|wie viele|valor|número|cuántas|tiempo|puntos|resultado|marca)$/i,
  side: /^(side|hand|foot|leg|arm|seite|fuß|bein|lado|mano|pie|pierna|brazo)$/i,
};

/** The columns whose headings say what they hold; the teacher may choose others. */
export function guessColumns({ header }: Pick<Table, 'header'>): Columns {
  const find = (key: keyof Columns) => {
    const at = header.findIndex((heading) => HEADINGS[key].test(heading));
    return at < 0 ? null : at;
  };
  return { nickname: find('nickname'), value: find('value'), side: find('side') };
}

export interface MatchedRow {
  studentId: string;
  value: number;
  side: Side | null;
}

/** As it is compared; the mark before what a spreadsheet might run is not part of it. */
const nameOf = (text: string) =>
  text
    .trim()
    .replace(/^'(?=[=+\-@])/, '')
    .toLowerCase()
    .replace(/\s+/g, ' ');
const SIDES: Readonly<Record<Side, readonly string[]>> = {
  left: ['left', 'links', 'izquierda'],
  right: ['right', 'rechts', 'derecha'],
};

/** Undefined where it is no side in any language the program speaks to teachers in. */
const sideOf = (text: string): Side | null | undefined =>
  text === ''
    ? null
    : sides.find((side) => SIDES[side].some((word) => word.startsWith(text.toLowerCase())));

/**
 * Windows-1252 from 80 to 9f hexadecimal (WHATWG Encoding); elsewhere it is as Unicode. Not every
 * system's decoder knows it.
 */
const WINDOWS_1252 = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008dŽ\u008f\u0090‘’“”•–—˜™š›œ\u009džŸ';

/**
 * A sheet's bytes as text: UTF-8, or what spreadsheets of Windows write where they are not asked.
 */
export function decodeTable(bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return Array.from(bytes, (byte) =>
      byte >= 0x80 && byte < 0xa0 ? WINDOWS_1252.charAt(byte - 0x80) : String.fromCharCode(byte),
    ).join('');
  }
}

/**
 * The lines that can be taken, by nickname or code as it is printed, and what is wrong with each of
 * the others; the first line below the heading is line 2.
 */
export function matchRows(
  { rows }: Table,
  columns: Columns,
  students: readonly { id: string; nickname: string; code: string }[],
  measure?: Measure,
): { matched: MatchedRow[]; faults: { line: number; say: string }[] } {
  const byName = new Map(students.map(({ id, nickname }) => [nameOf(nickname), id]));
  const byCode = new Map(students.map(({ id, code }) => [code, id]));
  const matched: MatchedRow[] = [];
  const faults: { line: number; say: string }[] = [];
  rows.forEach((row, i) => {
    const cell = (at: number | null) => (at === null ? '' : (row[at] ?? ''));
    const [who, number, sideText] = [
      cell(columns.nickname),
      cell(columns.value),
      cell(columns.side),
    ];
    const studentId = byName.get(nameOf(who)) ?? byCode.get(readSpoken(who));
    const value = readNumber(number, measure);
    const side = sideOf(sideText);
    const fault = !studentId
      ? teacherText('table.nobody', { who })
      : value === null
        ? teacherText('table.no-number', { number })
        : side === undefined
          ? teacherText('table.no-side', { side: sideText })
          : null;
    if (fault !== null || !studentId || value === null)
      faults.push({ line: i + 2, say: fault ?? '' });
    else matched.push({ studentId, value, side: side ?? null });
  });
  return { matched, faults };
}
