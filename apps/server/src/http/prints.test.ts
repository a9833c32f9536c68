import type { Class, Share, Student } from '@zest/contract';
import { makeKit, type Lesson } from '@zest/core/lesson';
import { sayCode, usualRule } from '@zest/core/results';
import { demoPlan } from '@zest/demo/plan';
import { nanoid } from 'nanoid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { pdfPages, readAloud } from '../testing/pdf.ts';
import { lessonOf, testServer, type TestClient, type TestServer } from '../testing/server.ts';

let server: TestServer;
let teacher: TestClient;
beforeAll(async () => {
  server = await testServer();
  teacher = server.client();
  await teacher.signUp();
});
afterAll(() => server.stop());

const pagesOf = async (url: string) => pdfPages(await teacher.bytes(url));

async function printed(print: string, lesson: Lesson): Promise<string[]> {
  const { id } = await teacher.makeLesson(lesson);
  return pagesOf(`/api/lessons/${id}/prints/${print}`);
}

describe('prints', () => {
  it('are tagged, with title and language: headings, tables and lists are read as what they are', async () => {
    const plan = demoPlan();
    plan.settings.language = 'de';
    const { id } = await teacher.makeLesson(plan);
    const of = async (print: string) =>
      readAloud(await teacher.bytes(`/api/lessons/${id}/prints/${print}`));
    const onePage = await of('plan');
    expect([onePage.title, onePage.language, onePage.pages.length]).toEqual([
      'Balance, beat and bottles',
      'de',
      1,
    ]);
    expect(onePage.pages[0]?.slice(0, 2)).toEqual([
      'H1: Balance, beat and bottles',
      expect.stringMatching(/^P: .*Woche 4/),
    ]);
    const table = onePage.pages[0]?.slice(onePage.pages[0].indexOf('Table')) ?? [];
    expect(table.slice(0, 7)).toEqual([
      'Table',
      ...['Video', 'Gesamt', 'Teil', 'Dauer', 'Was', 'Hinweise'].map((name) => `TH: ${name}`),
    ]);
    expect(table.slice(7).every((line) => /^(TD|P): /.test(line))).toBe(true);
    const kit = (await of('kit')).pages[0] ?? [];
    expect(kit.filter((line) => line.startsWith('H2')).length).toBeGreaterThan(0);
    expect(kit.slice(kit.indexOf('L'), kit.indexOf('L') + 2)).toEqual([
      'L',
      expect.stringMatching(/^LBody: /),
    ]);
    // A head that is repeated on the next page is read once; so is no foot.
    const sheet = await of('run-sheet');
    expect(sheet.pages.length).toBeGreaterThan(1);
    expect(sheet.pages.map((page) => page.filter((line) => line === 'TH: Gerufen').length)).toEqual(
      [1, ...sheet.pages.slice(1).map(() => 0)],
    );
    expect(
      sheet.pages.flat().filter((line) => / of \d+$/.test(line) && line.startsWith('P')),
    ).toEqual([]);
    expect(sheet.pages.at(-1)?.some((line) => line.startsWith('TD: '))).toBe(true);
  });

  it('have the plan on one page, with both clocks, what is needed and the care to take', async () => {
    const pages = await printed('plan', demoPlan());
    expect(pages).toHaveLength(1);
    for (const words of [
      'Balance, beat and bottles',
      'week 4',
      'Video 9:24, with pauses 13:24',
      'Bottle',
      'or shoes',
      'Soft knees',
      '5:36 9:36 Go for it',
    ])
      expect(pages[0]).toContain(words);
  });

  it('fold a plan that is too long for a page, and say so', async () => {
    const blocks = Array.from({ length: 55 }, (_, i) => ({
      kind: 'intervals' as const,
      title: `Block ${i} with a name that is rather long for a table`,
    }));
    const sixty = await printed('plan', lessonOf(blocks));
    expect(sixty).toHaveLength(1);
    expect(sixty[0]).toContain('Block 54');
    const lesson = lessonOf([]);
    const sections = Array.from({ length: 4 }, (_, s) => ({
      id: `s${s}`,
      title: `Section ${s}`,
      blocks:
        lessonOf(blocks).sections[0]?.blocks.map((block) => ({
          ...block,
          id: `${s}-${block.id}`,
        })) ?? [],
    }));
    const long = await printed('plan', { ...lesson, sections });
    expect(long).toHaveLength(1);
    expect(long[0]).toContain('Section 3');
    expect(long[0]).toContain('The blocks are on the run sheet');
  });

  it('have the kit for families with stand-ins and the words they will hear', async () => {
    const kit = [{ ...makeKit('Seil', () => 'k'), quantity: 2, standIn: 'Gürtel' }];
    const lesson = {
      ...lessonOf([{ kind: 'intervals', kit, cautions: ['Weiche Knie.'] }]),
      glossary: [{ id: 'g', term: 'Pivot', plain: 'turn on one foot' }],
    };
    const [page, ...more] = await printed('kit', lesson);
    expect(more).toEqual([]);
    for (const words of [
      '2 × Seil (or Gürtel)',
      'Weiche Knie.',
      'Pivot: turn on one foot',
      'Stop if something hurts',
    ])
      expect(page).toContain(words);
  });

  it('are read letter by letter whatever was printed before, letters with marks too', async () => {
    const titled = async (title: string) => {
      const lesson = { ...lessonOf([{ kind: 'talk', script: 'Hello.' }]), title };
      return (await printed('plan', lesson))[0];
    };
    for (const title of ['Übung, Çay, Ångström', 'Uebung, Cay, Angstrom'])
      expect(await titled(title)).toContain(title);
  });

  it(
    'have the run sheet over as many pages as it takes, each numbered, or the blocks ' +
      'alone where it takes too many',
    async () => {
      const pages = await printed('run-sheet', demoPlan());
      expect(pages.length).toBeGreaterThan(1);
      expect(pages.at(-1)).toContain(`${pages.length} of ${pages.length}`);
      expect(pages.join(' ')).toContain('“Halfway”');
      const long = await printed(
        'run-sheet',
        lessonOf([{ kind: 'reps', title: 'Many', reps: 500, sets: 2 }]),
      );
      expect(long).toHaveLength(1);
      expect(long[0]).toContain('lines are too many for paper');
    },
  );

  it('print right-to-left text in its letters, leave pictographs out, and refuse what is no print', async () => {
    const [page] = await printed('plan', {
      ...lessonOf([{ kind: 'talk', title: 'חבל' }]),
      title: 'مرحبا 🤸 Ρολόι',
    });
    expect(page).toContain('مرحبا');
    expect(page).not.toMatch(/\p{Extended_Pictographic}/u);
    expect(page).toContain('Ρολόι');
    expect(page).toContain('חבל');
    const { id } = await teacher.makeLesson();
    const answer = await teacher.get(`/api/lessons/${id}/prints/poster`);
    expect([answer.status, answer.body.message]).toEqual([
      404,
      'There is no such print. There are: plan, kit, run-sheet, call-sheet, check.',
    ]);
  });
});

describe('cards of a class', () => {
  const score = (value: number) => ({
    kind: 'score',
    blockId: 'b',
    key: 'k',
    title: 'Fast skips',
    measure: 'count',
    better: 'more',
    value,
    side: 'left',
    level: 'standard',
    seconds: 30,
  });

  it('have every student’s nickname and code once, the link has its codes, the record its best', async () => {
    const plan = {
      name: 'Otters “two”',
      keepWeeks: 20,
      rule: usualRule,
      credits: [
        {
          id: 'l',
          name: 'Blue rope',
          criteria: [{ id: 'c', text: 'Lands softly', measured: null }],
        },
      ],
    };
    const schoolClass = (await teacher.send('POST', '/api/classes', plan)).body as Class;
    const students = (
      await teacher.send('POST', `/api/classes/${schoolClass.id}/students`, { count: 23 })
    ).body as Student[];
    const cards = (await pagesOf(`/api/classes/${schoolClass.id}/cards`)).join(' ');
    for (const { nickname, code } of students)
      expect([nickname, cards.split(nickname).length, cards.split(sayCode(code)).length]).toEqual([
        nickname,
        2,
        2,
      ]);
    expect(cards).toContain('Otters “two”');

    const { id } = await teacher.makeLesson(lessonOf([{ kind: 'talk', script: 'Hello.' }]));
    const share = (
      await teacher.send('POST', `/api/lessons/${id}/shares`, {
        classId: schoolClass.id,
        opensAt: null,
        closesAt: '2099-05-01T10:00:00Z',
      })
    ).body as Share;
    const [link] = await pagesOf(`/api/shares/${share.code}/card`);
    for (const words of [
      `class ${sayCode(schoolClass.code)}`,
      `lesson ${sayCode(share.spoken ?? '')}`,
      `/follow/${share.code}`,
      'until 1 May 2099',
    ])
      expect(link).toContain(words);

    const [first] = students;
    const entry = (body: object, at: number) => ({
      id: nanoid(),
      at,
      studentId: first?.id,
      lessonId: id,
      body,
    });
    await teacher.send('POST', `/api/classes/${schoolClass.id}/entries`, {
      entries: [
        entry(score(24), Date.UTC(2026, 10, 2)),
        entry(score(27), Date.UTC(2026, 10, 9)),
        entry({ kind: 'signed', levelId: 'l', criterionId: 'c' }, Date.UTC(2026, 10, 9)),
      ],
    });
    const [record] = await pagesOf(`/api/students/${first?.id}/record`);
    for (const words of [
      first?.nickname ?? '',
      'Fast skips',
      'left',
      '27 in 30 s',
      '0.9 a second',
      'Blue rope',
      'Lands softly',
      'signed off',
    ])
      expect(record).toContain(words);
  });
});
