import { describe, expect, it } from 'vitest';
import { decodeTable, guessColumns, matchRows, readTable } from './index.ts';

const students = [
  { id: 'a', nickname: 'Silver Heron', code: 'K7MPQ2' },
  { id: 'b', nickname: 'Kite', code: 'ZZ2345' },
];

describe('numbers from a sheet', () => {
  it('are read with tabs, commas or semicolons, by nickname or code', () => {
    for (const mark of ['\t', ',', ';']) {
      const table = readTable(
        ['Name', 'Side', 'Count'].join(mark) +
          '\n' +
          ['silver  heron', 'l', mark === ',' ? '24' : '24,5'].join(mark) +
          '\n' +
          ['zz2345', '', '30'].join(mark),
      );
      const columns = guessColumns(table);
      expect(columns).toEqual({ nickname: 0, side: 1, value: 2 });
      expect(matchRows(table, columns, students)).toEqual({
        matched: [
          { studentId: 'a', value: mark === ',' ? 24 : 24.5, side: 'left' },
          { studentId: 'b', value: 30, side: null },
        ],
        faults: [],
      });
    }
  });

  it(
    'know codes as they are printed, times as they are written, and a name with the ' +
      'mark a spreadsheet was given',
    () => {
      const table = readTable(
        "who,time\nK7M PQ2,1:23\nzz2-345,1:02:03.5\n'@heron,59\nKite,0x10\nKite,1:60\nKite,1e3",
      );
      const known = [...students, { id: 'c', nickname: '@heron', code: 'AAAAAA' }];
      const { matched, faults } = matchRows(table, guessColumns(table), known, 'time');
      expect(matched.map(({ studentId, value }) => [studentId, value])).toEqual([
        ['a', 83],
        ['b', 3_723.5],
        ['c', 59],
      ]);
      expect(faults.map(({ line }) => line)).toEqual([5, 6, 7]);
      // A count is no time.
      expect(
        matchRows(table, guessColumns(table), known, 'count').matched.map(({ value }) => value),
      ).toEqual([59]);
    },
  );

  it('are read as UTF-8, and as Windows writes them', () => {
    const table = 'Name;Zahl\nMüwe “élan”;3';
    expect(decodeTable(new TextEncoder().encode(table))).toBe(table);
    // Windows-1252 (WHATWG Encoding): ü fc, “ 93, é e9, ” 94.
    expect(decodeTable(Uint8Array.from([0x4d, 0xfc, 0x77, 0x65, 0x20, 0x93, 0xe9, 0x94]))).toBe(
      'Müwe “é”',
    );
  });

  it('say line by line what cannot be taken, and take the rest', () => {
    const table = readTable(
      'who,number,hand\nKite,12,right\nNobody,3,\nKite,many,\nKite,-1,\nKite,4,up\n,5,',
    );
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
