import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { guessColumns, matchRows, readTable, scoresCsv, type LogEntry } from './index.ts';

const students = [
  { id: 'a', nickname: 'Silver Heron', code: 'K7MPQ2' },
  { id: 'b', nickname: 'Kite', code: 'ZZ2345' },
];

describe('numbers from a sheet', () => {
  it('are read with tabs, commas or semicolons, by nickname or code', () => {
    for (const mark of ['\t', ',', ';']) {
      const table = readTable(['Name', 'Side', 'Count'].join(mark) + '\n' + ['silver  heron', 'l', mark === ',' ? '24' : '24,5'].join(mark) + '\n' + ['zz2345', '', '30'].join(mark));
      const columns = guessColumns(table);
      expect(columns).toEqual({ nickname: 0, side: 1, value: 2 });
      expect(matchRows(table, columns, students)).toEqual({ matched: [{ studentId: 'a', value: mark === ',' ? 24 : 24.5, side: 'left' }, { studentId: 'b', value: 30, side: null }], faults: [] });
    }
  });

  it('say line by line what cannot be taken, and take the rest', () => {
    const table = readTable('who,number,hand\nKite,12,right\nNobody,3,\nKite,many,\nKite,-1,\nKite,4,up\n,5,');
    const { matched, faults } = matchRows(table, guessColumns(table), students);
    expect(matched).toEqual([{ studentId: 'b', value: 12, side: 'right' }]);
    expect(faults.map(({ line }) => line)).toEqual([3, 4, 5, 6, 7]);
    expect(faults[1]?.say).toBe('“many” is no number from 0 to a million');
  });

  it('refuse what is no table, or too much of one', () => {
    expect(() => readTable('   ')).toThrow('no table');
    expect(() => readTable('just one line')).toThrow('no table');
    expect(() => readTable(`a\n${'1\n'.repeat(2_001)}`)).toThrow('2001 lines');
  });
});

describe('numbers as CSV', () => {
  it('come back whole, with nothing a spreadsheet would run', () => {
    const entry: LogEntry = { id: 'e', studentId: 'a', lessonId: 'l', at: Date.UTC(2026, 10, 2), by: 'student', body: { kind: 'score', blockId: 'b', key: 'k', title: '=SUM(A1), "fast"', measure: 'count', better: 'more', value: 24, side: 'left', level: 'easier', seconds: 30 } };
    const csv = scoresCsv([entry, { ...entry, id: 'o', body: { kind: 'opened' } }], new Map([['a', '@heron']]), new Map([['l', 'Skip']]));
    const { data } = Papa.parse<string[]>(csv);
    expect(data).toHaveLength(2);
    expect(data[1]).toEqual(["'@heron", '2026-11-02', 'Skip', '\'=SUM(A1), "fast"', 'count', '24', 'left', 'easier', '30', '0.8']);
  });
});
