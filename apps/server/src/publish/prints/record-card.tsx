import {
  attainedIn,
  compareWords,
  creditState,
  doingStreak,
  linesOf,
  valueWords,
  type CreditLevel,
  type Line,
  type LogEntry,
} from '@zest/core/results';
import { Heading, Sheet, styles, Table, toPdf, Words, type Column } from './sheet.tsx';

export interface RecordCard {
  nickname: string;
  className: string;
  entries: readonly LogEntry[];
  credits: readonly CreditLevel[];
  /** The day it is printed, in milliseconds since 1970. */
  at: number;
}

const SIZE = 11;
const day = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeZone: 'UTC' });

interface CreditRow {
  level: string;
  text: string;
  met: string;
}

const formOf = ({ side, level }: Line) =>
  [side ?? '', level === 'standard' ? '' : level].filter((text) => text !== '').join(', ');

/** What one student has done and reached, for the student to take home. */
export function recordCardPdf({
  nickname,
  className,
  entries,
  credits,
  at,
}: RecordCard): Promise<Buffer> {
  const lines = linesOf(entries);
  const streak = doingStreak(entries, at);
  const columns: Column<Line>[] = [
    { name: 'Exercise', part: 30, text: ({ title }) => title, style: () => styles.bold },
    { name: 'Side, form', part: 16, text: formOf },
    {
      name: 'First',
      part: 18,
      text: (line) => (line.points[0] ? valueWords(line, line.points[0]) : ''),
    },
    {
      name: 'Latest',
      part: 18,
      text: (line) => (line.points.at(-1) ? valueWords(line, line.points.at(-1) ?? line.best) : ''),
    },
    { name: 'Best', part: 18, text: (line) => valueWords(line, line.best) },
    { name: 'Best, to compare', part: 20, text: (line) => compareWords(line, line.best.compared) },
    { name: 'On', part: 16, text: ({ best }) => day.format(best.at) },
  ];
  const rows = credits.flatMap((level) => {
    const states = creditState(level, attainedIn(entries));
    return level.criteria.map(({ id, text }): CreditRow => {
      const met = states.find(({ criterionId }) => criterionId === id)?.met;
      return {
        level: level.name,
        text,
        met: met === 'signed' ? 'signed off' : met === 'measured' ? 'reached' : '',
      };
    });
  });
  const creditColumns: Column<CreditRow>[] = [
    { name: 'Level', part: 20, text: ({ level }) => level },
    { name: 'What is to be done', part: 60, text: ({ text }) => text },
    { name: '', part: 20, text: ({ met }) => met, style: () => styles.bold },
  ];
  return toPdf(
    <Sheet title={nickname} place={`${className} · ${day.format(at)}`} size={SIZE}>
      <Words>{`Weeks running with something done: ${streak.now} now, ${streak.longest} at most.`}</Words>
      <Heading size={SIZE}>Numbers</Heading>
      {lines.length === 0 ? <Words>None yet.</Words> : <Table columns={columns} rows={lines} />}
      {rows.length > 0 && <Heading size={SIZE}>Levels</Heading>}
      {rows.length > 0 && <Table columns={creditColumns} rows={rows} />}
    </Sheet>,
  );
}
