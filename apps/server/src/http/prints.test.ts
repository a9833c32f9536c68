import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { makeKit, type Lesson } from '@zest/core/lesson';
import { demoPlan } from '@zest/demo/plan';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { lessonOf, testServer, type TestClient, type TestServer } from '../testing/server.ts';

let server: TestServer;
let teacher: TestClient;
beforeAll(async () => {
  server = await testServer();
  teacher = server.client();
  await teacher.signUp();
});
afterAll(() => server.stop());

/** Text of each page as pdf.js, a reader from outside the project, has it. */
async function printed(print: string, lesson: Lesson): Promise<string[]> {
  const { id } = await teacher.makeLesson(lesson);
  const bytes = await teacher.bytes(`/api/lessons/${id}/prints/${print}`);
  const document = await getDocument({ data: bytes, verbosity: 0 }).promise;
  return Promise.all(
    Array.from({ length: document.numPages }, async (_, i) => {
      const { items } = await (await document.getPage(i + 1)).getTextContent();
      // A letter may be drawn as two marks, of which the second stands for no letter.
      return items.map((item) => ('str' in item ? item.str : '')).join(' ').replace(/\p{Cc}/gu, '').replace(/\s+/g, ' ');
    }),
  );
}

describe('prints', () => {
  it('have the plan on one page, with both clocks, what is needed and the care to take', async () => {
    const pages = await printed('plan', demoPlan());
    expect(pages).toHaveLength(1);
    for (const words of ['Balance, beat and bottles', 'week 4', 'Video 9:24, with pauses 13:24', 'Bottle', 'or shoes', 'Soft knees', '5:36 9:36 Go for it']) expect(pages[0]).toContain(words);
  });

  it('fold a plan that is too long for a page, and say so', async () => {
    const blocks = Array.from({ length: 55 }, (_, i) => ({ kind: 'intervals' as const, title: `Block ${i} with a name that is rather long for a table` }));
    const sixty = await printed('plan', lessonOf(blocks));
    expect(sixty).toHaveLength(1);
    expect(sixty[0]).toContain('Block 54');
    const lesson = lessonOf([]);
    const sections = Array.from({ length: 4 }, (_, s) => ({ id: `s${s}`, title: `Section ${s}`, blocks: lessonOf(blocks).sections[0]?.blocks.map((block) => ({ ...block, id: `${s}-${block.id}` })) ?? [] }));
    const long = await printed('plan', { ...lesson, sections });
    expect(long).toHaveLength(1);
    expect(long[0]).toContain('Section 3');
    expect(long[0]).toContain('The blocks are on the run sheet');
  });

  it('have the kit for families with stand-ins and the words they will hear', async () => {
    const kit = [{ ...makeKit('Seil', () => 'k'), quantity: 2, standIn: 'Gürtel' }];
    const lesson = { ...lessonOf([{ kind: 'intervals', kit, cautions: ['Weiche Knie.'] }]), glossary: [{ id: 'g', term: 'Pivot', plain: 'turn on one foot' }] };
    const [page, ...more] = await printed('kit', lesson);
    expect(more).toEqual([]);
    for (const words of ['2 × Seil for each (or Gürtel)', 'Weiche Knie.', 'Pivot: turn on one foot', 'Stop if something hurts']) expect(page).toContain(words);
  });

  it('have the run sheet over as many pages as it takes, each numbered, or the blocks alone where it takes too many', async () => {
    const pages = await printed('run-sheet', demoPlan());
    expect(pages.length).toBeGreaterThan(1);
    expect(pages.at(-1)).toContain(`${pages.length} of ${pages.length}`);
    expect(pages.join(' ')).toContain('“Halfway”');
    const long = await printed('run-sheet', lessonOf([{ kind: 'reps', title: 'Many', reps: 500, sets: 2 }]));
    expect(long).toHaveLength(1);
    expect(long[0]).toContain('lines are too many for paper');
  });

  it('print right-to-left text in its letters, leave pictographs out, and refuse what is no print', async () => {
    const [page] = await printed('plan', { ...lessonOf([{ kind: 'talk', title: 'חבל' }]), title: 'مرحبا 🤸 Ρολόι' });
    expect(page).toContain('مرحبا');
    expect(page).not.toMatch(/\p{Extended_Pictographic}/u);
    expect(page).toContain('Ρολόι');
    expect(page).toContain('חבל');
    const { id } = await teacher.makeLesson();
    const answer = await teacher.get(`/api/lessons/${id}/prints/poster`);
    expect([answer.status, answer.body.message]).toEqual([404, 'There is no such print. There are: plan, kit, run-sheet, call-sheet, check.']);
  });
});
