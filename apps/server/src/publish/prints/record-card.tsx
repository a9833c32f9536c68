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
import { valueName } from '@zest/core/lesson';
import { teacherLocale, teacherText } from '@zest/core/words';
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

interface CreditRow {
  level: string;
  text: string;
  met: string;
}

const formOf = ({ side, level }: Line) =>
  [side ? valueName(side) : '', level === 'standard' ? '' : teacherText(`level.${level}`)]
    .filter((text) => text !== '')
    .join(', ');

/** What one student has done and reached, for the student to take home. */
export function recordCardPdf({
  nickname,
  className,
  entries,
  credits,
  at,
}: RecordCard): Promise<Buffer> {
  const day = new Intl.DateTimeFormat(teacherLocale(), { dateStyle: 'medium', timeZone: 'UTC' });
  const lines = linesOf(entries);
  const streak = doingStreak(entries, at);
  const columns: Column<Line>[] = [
    {
      name: teacherText('record.exercise'),
      part: 30,
      text: ({ title }) => title,
      style: () => styles.bold,
    },
    { name: teacherText('record.side-form'), part: 16, text: formOf },
    {
      name: teacherText('record.first'),
      part: 18,
      text: (line) => (line.points[0] ? valueWords(line, line.points[0]) : ''),
    },
    {
      name: teacherText('record.latest'),
      part: 18,
      text: (line) => (line.points.at(-1) ? valueWords(line, line.points.at(-1) ?? line.best) : ''),
    },
    { name: teacherText('record.best'), part: 18, text: (line) => valueWords(line, line.best) },
    {
      name: teacherText('record.best-compared'),
      part: 20,
      text: (line) => compareWords(line, line.best.compared),
    },
    { name: teacherText('record.on'), part: 16, text: ({ best }) => day.format(best.at) },
  ];
  const rows = credits.flatMap((level) => {
    const states = creditState(level, attainedIn(entries));
    return level.criteria.map(({ id, text }): CreditRow => {
      const met = states.find(({ criterionId }) => criterionId === id)?.met;
      return {
        level: level.name,
        text,
        met:
          met === 'signed'
            ? teacherText('record.signed')
            : met === 'measured'
              ? teacherText('record.reached')
              : '',
      };
    });
  });
  const creditColumns: Column<CreditRow>[] = [
    { name: teacherText('record.level'), part: 20, text: ({ level }) => level },
    { name: teacherText('record.to-do'), part: 60, text: ({ text }) => text },
    { name: '', part: 20, text: ({ met }) => met, style: () => styles.bold },
  ];
  return toPdf(
    <Sheet title={nickname} place={`${className} · ${day.format(at)}`} size={SIZE}>
      <Words>{teacherText('record.streak', { now: streak.now, longest: streak.longest })}</Words>
      <Heading size={SIZE}>{teacherText('record.numbers')}</Heading>
      {lines.length === 0 ? (
        <Words>{teacherText('record.none')}</Words>
      ) : (
        <Table columns={columns} rows={lines} />
      )}
      {rows.length > 0 && <Heading size={SIZE}>{teacherText('record.levels')}</Heading>}
      {rows.length > 0 && <Table columns={creditColumns} rows={rows} />}
    </Sheet>,
  );
}
