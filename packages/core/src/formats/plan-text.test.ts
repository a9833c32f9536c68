import fc from 'fast-check';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import {
  blocksOf,
  makeBlock,
  makeKit,
  makeLesson,
  type Block,
  type Lesson,
} from '../lesson/index.ts';
import { runSheet, scheduleLesson } from '../schedule/index.ts';
import { paperWord } from '../words/index.ts';
import { arbitraryLesson, counter } from '../testing/arbitrary.ts';
import { kitCsv, planMarkdown, runSheetCsv } from './index.ts';

const rowsOf = (csv: string) => Papa.parse<string[]>(csv, { skipEmptyLines: true }).data;

describe('tables', () => {
  it('hold every line of any run sheet, whatever its words', () => {
    fc.assert(
      fc.property(arbitraryLesson, (lesson) => {
        const schedule = scheduleLesson(lesson);
        const lines = runSheet(schedule, 'en');
        const [head, ...rows] = rowsOf(runSheetCsv(schedule, 'en'));
        expect(head).toEqual(['Video', 'Student', 'Level', 'What', 'Seconds']);
        expect(rows.map((row) => [row[2], Math.round(Number(row[4]) * 1000)])).toEqual(
          lines.map(({ level, durationMs }) => [paperWord('en', `level.${level}`), durationMs]),
        );
      }),
    );
  });

  it('tell what can be chosen with what is asked', () => {
    const makeId = counter();
    const choices = ['Left', 'Right'].map((text, i) => ({
      ...{ id: makeId(), text, movement: 'other' as const, isRight: i === 0, why: '' },
    }));
    const block = { ...makeBlock('question', makeId), question: 'Which foot leads?', choices };
    const lesson = {
      ...makeLesson('A', makeId),
      sections: [{ id: 's', title: 'S', blocks: [block as Block] }],
    };
    const rows = rowsOf(runSheetCsv(scheduleLesson(lesson), 'en'));
    expect(rows.map(([, , , what]) => what)).toContain('Which foot leads?, A Left, B Right');
  });

  it('never let a spreadsheet reckon what somebody typed', () => {
    const makeId = counter();
    const block = {
      ...makeBlock('talk', makeId),
      kit: [makeKit('=1+1', makeId), makeKit('“Rope”, red', makeId)],
    };
    const lesson: Lesson = {
      ...makeLesson('A', makeId),
      sections: [{ id: 's', title: 'S', blocks: [block] }],
    };
    const [, first, second] = rowsOf(kitCsv(scheduleLesson(lesson), 'en'));
    expect([first?.[0], second?.[0]]).toEqual(["'=1+1", '“Rope”, red']);
  });
});

describe('the plan as Markdown', () => {
  it('names every section and block once, in order, and takes no text for marks', () => {
    fc.assert(
      fc.property(arbitraryLesson, (lesson) => {
        const lines = planMarkdown(lesson, scheduleLesson(lesson)).split('\n');
        expect(lines.filter((line) => line.startsWith('# '))).toHaveLength(1);
        expect(lines.filter((line) => line.startsWith('## '))).toHaveLength(lesson.sections.length);
        expect(lines.filter((line) => line.startsWith('### '))).toHaveLength(
          blocksOf(lesson).length,
        );
      }),
    );
    const odd = { ...makeLesson('# *Skip* <b>', counter()), outcome: 'One\ntwo' };
    expect(planMarkdown(odd, scheduleLesson(odd))).toMatch(
      /^# \\# \\\*Skip\\\* \\<b\\>\n\nOne two\n/,
    );
  });
});
