import {
  MAX_ENTRIES_A_DAY,
  STUDENT_HEADER,
  type Class,
  type FollowLesson,
  type LogPage,
  type OwnLog,
  type Share,
  type Student,
} from '@zest/contract';
import { usualRule, type EntryBody } from '@zest/core/results';
import { nanoid } from 'nanoid';
import { QueryTypes } from 'sequelize';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { eraseOld } from '../db/classes.ts';
import {
  lessonOf,
  signUpSecond,
  testServer,
  until,
  type TestClient,
  type TestServer,
} from '../testing/server.ts';

let server: TestServer;
let teacher: TestClient;
let lessonId: string;
let otters: Class;
let herons: Class;
let students: Student[];
let share: Share;

const plan = (name: string) => ({ name, keepWeeks: 20, rule: usualRule, credits: [] });
const shareWith = async (body: object) =>
  (
    await teacher.send('POST', `/api/lessons/${lessonId}/shares`, {
      classId: null,
      opensAt: null,
      closesAt: null,
      ...body,
    })
  ).body as Share;

beforeAll(async () => {
  server = await testServer();
  teacher = server.client();
  await teacher.signUp();
  lessonId = (
    await teacher.makeLesson(
      lessonOf([
        { kind: 'talk', title: 'Hello', script: 'Hello and welcome.' },
        { kind: 'game', title: 'Target game' },
        { kind: 'called', title: 'Calls' },
      ]),
    )
  ).id;
  [otters, herons] = [
    (await teacher.send('POST', '/api/classes', plan('Otters'))).body,
    (await teacher.send('POST', '/api/classes', plan('Herons'))).body,
  ];
  students = (await teacher.send('POST', `/api/classes/${otters.id}/students`, { count: 30 }))
    .body as Student[];
  share = await shareWith({ classId: otters.id });
});
afterAll(() => server.stop());

const join = async (client: TestClient, code: string, link = share.code) =>
  client.send('POST', `/api/follow/${link}/students`, { code });
const entry = (body: EntryBody, id = nanoid()) => ({ id, at: Date.UTC(2026, 10, 2), body });
const score = (value: number): EntryBody => ({
  kind: 'score',
  blockId: 't3',
  key: 'k',
  title: 'Throws',
  measure: 'count',
  better: 'more',
  value,
  side: null,
  level: 'standard',
  seconds: 30,
});
const logOf = async (id = otters.id) =>
  (await teacher.get(`/api/classes/${id}/log`)).body as LogPage;

/** A student's device: what it sends goes under its own name. */
async function device(student: Student | undefined) {
  const client = server.client();
  const { token } = (await join(client, student?.code ?? '')).body as { token: string };
  const header = { [STUDENT_HEADER]: token };
  return {
    token,
    send: (entries: unknown[], link = share.code) =>
      client.send('POST', `/api/follow/${link}/entries`, { entries }, header),
    sendAt: (sentAt: number, entries: unknown[]) =>
      client.send('POST', `/api/follow/${share.code}/entries`, { sentAt, entries }, header),
    mine: async (link = share.code) => client.get(`/api/follow/${link}/mine`, header),
  };
}

describe('a class', () => {
  it('has made-up names and codes, each once, and takes names given', async () => {
    expect(new Set(students.map(({ nickname }) => nickname)).size).toBe(30);
    expect(new Set(students.map(({ code }) => code)).size).toBe(30);
    for (const { code } of students) expect(code).toMatch(/^[A-HJKMNP-Z2-9]{6}$/);
    const given = await teacher.send('POST', `/api/classes/${herons.id}/students`, {
      nicknames: ['Kite', 'Tern 2'],
    });
    expect(given.body.map(({ nickname }: Student) => nickname)).toEqual(['Kite', 'Tern 2']);
    expect(
      (
        await teacher.send('POST', `/api/classes/${herons.id}/students`, {
          nicknames: ['Wren', 'kite'],
        })
      ).body,
    ).toMatchObject({ code: 'taken' });
    expect(
      (await teacher.send('POST', `/api/classes/${herons.id}/students`, { count: 199 })).body
        .message,
    ).toContain('room for 198 more');
    expect(
      ((await teacher.get('/api/classes')).body as Class[]).map(({ students: count }) => count),
    ).toEqual([30, 2]);
  });

  it('refuses what is out of bounds in words', async () => {
    expect(
      (
        await teacher.send('PUT', `/api/classes/${otters.id}`, {
          ...plan('Otters'),
          keepWeeks: 400,
        })
      ).body.message,
    ).toBe('At most 104 weeks.');
    expect(
      (
        await teacher.send('PUT', `/api/students/${students[0]?.id}`, {
          nickname: ' ',
          group: '',
          language: null,
          hand: null,
        })
      ).body.message,
    ).toContain('at least one letter');
    expect(
      (
        await teacher.send('PUT', `/api/students/${students[0]?.id}`, {
          nickname: 'Wader',
          group: '',
          language: null,
          hand: null,
          page: ['loud'],
        })
      ).status,
    ).toBe(400);
    expect(
      (
        await teacher.send('POST', `/api/lessons/${lessonId}/shares`, {
          classId: 'nobody',
          opensAt: null,
          closesAt: null,
        })
      ).body.code,
    ).toBe('no-class');
  });
});

describe('a link for a class', () => {
  it('is found by the class’s code and its own, only together', async () => {
    const stranger = server.client();
    const typed = `${share.spoken?.slice(0, 3).toLowerCase()}-${share.spoken?.slice(3)}`;
    expect(
      (await stranger.send('POST', '/api/go', { classCode: ` ${otters.code} `, lessonCode: typed }))
        .body,
    ).toEqual({ code: share.code });
    expect(
      (await stranger.send('POST', '/api/go', { classCode: herons.code, lessonCode: share.spoken }))
        .status,
    ).toBe(404);
    expect(
      (await stranger.send('POST', '/api/go', { classCode: otters.code, lessonCode: '' })).status,
    ).toBe(404);
  });

  it('opens and closes by its dates', async () => {
    const dated = await shareWith({ classId: otters.id, opensAt: '2099-01-01T08:00:00Z' });
    const early = await server.client().get(`/api/follow/${dated.code}`);
    expect([early.status, early.body.message, early.body.at]).toEqual([
      403,
      'This lesson opens on Thursday 1 January at 08:00 UTC.',
      expect.stringMatching(/-01-01T08:00:00.000Z$/),
    ]);
    await teacher.send('PUT', `/api/shares/${dated.code}`, {
      opensAt: '2020-01-01T08:00:00Z',
      closesAt: '2021-01-01T08:00:00Z',
    });
    expect((await server.client().get(`/api/follow/${dated.code}`)).body.code).toBe('closed');
    expect(
      (await teacher.send('PUT', `/api/shares/${dated.code}`, { closesAt: '2019-01-01T08:00:00Z' }))
        .status,
    ).toBe(400);
    await teacher.send('PUT', `/api/shares/${dated.code}`, { closesAt: null });
    expect((await server.client().get(`/api/follow/${dated.code}`)).status).toBe(200);
  });

  it('says what has changed since, and shows the newest state when told to', async () => {
    const { lesson, revision } = (await teacher.get(`/api/lessons/${lessonId}`)).body;
    lesson.sections[0].blocks[1].title = 'Target game, further away';
    await teacher.send('PUT', `/api/lessons/${lessonId}`, { baseRevision: revision, lesson });
    const [shown] = ((await teacher.get(`/api/lessons/${lessonId}/shares`)).body as Share[]).filter(
      ({ code }) => code === share.code,
    );
    expect(shown).toMatchObject({ version: 1, changed: ['Target game, further away'] });
    const renewed = (await teacher.send('PUT', `/api/shares/${share.code}`, { toNewest: true }))
      .body;
    expect(renewed).toMatchObject({ version: 2, changed: [] });
    expect(
      ((await server.client().get(`/api/follow/${share.code}`)).body as FollowLesson).blocks[1]
        ?.title,
    ).toBe('Target game, further away');
  });

  it('cuts a called-out game in another order for another seed, as long as before', async () => {
    const follow = async (query: string) =>
      (await server.client().get(`/api/follow/${share.code}${query}`)).body as FollowLesson;
    const [first, again, other] = [
      await follow('?seed=7'),
      await follow('?seed=7'),
      await follow('?seed=8'),
    ];
    const calls = ({ assembly }: FollowLesson) =>
      assembly.lanes.cue.filter(({ moment }) => moment === 'command').map(({ text }) => text);
    expect(calls(first).length).toBeGreaterThan(5);
    expect(calls(again)).toEqual(calls(first));
    expect(calls(other)).not.toEqual(calls(first));
    expect(other.assembly.durationMs).toBe(first.assembly.durationMs);
    expect((await follow('?seed=1e99&hand=foot')).assembly.durationMs).toBe(
      first.assembly.durationMs,
    );
  });
});

describe('what students send', () => {
  it('is kept once, however often it is sent, under their own name', async () => {
    const [one, two] = [await device(students[0]), await device(students[1])];
    const sent = [entry({ kind: 'opened' }), entry(score(24)), entry({ kind: 'effort', value: 3 })];
    expect((await one.send(sent)).status).toBe(204);
    expect((await one.send([...sent, entry(score(26))])).status).toBe(204);
    expect((await two.send([entry(score(11))])).status).toBe(204);
    const { entries } = await logOf();
    expect(entries.filter(({ studentId }) => studentId === students[0]?.id)).toHaveLength(4);
    const ownLog = (await two.mine()).body as OwnLog;
    expect(ownLog.nickname).toBe(students[1]?.nickname);
    expect(ownLog.entries.map(({ studentId }) => studentId)).toEqual([students[1]?.id]);
  });

  it('is told of its lesson, as is the link it came by', async () => {
    const use = async (id: string) => (await teacher.send('GET', `/api/lessons/${id}/use`)).body;
    const quiet = (await teacher.makeLesson(lessonOf([{ kind: 'talk', title: 'Quiet' }]))).id;
    expect(await use(lessonId)).toEqual({ shared: true, answered: true });
    expect(await use(quiet)).toEqual({ shared: false, answered: false });
    const stranger = await signUpSecond(server);
    expect((await stranger.send('GET', `/api/lessons/${quiet}/use`)).status).toBe(404);
  });

  it('is told at once to teachers who have a page open', async () => {
    const one = await device(students[0]);
    const leave = new AbortController();
    const reader = (await teacher.stream('/api/events', leave.signal)).body?.getReader();
    await one.send([entry(score(25))]);
    let heard = '';
    while (!/event: log\ndata: .*\n\n/.test(heard))
      heard += new TextDecoder().decode((await reader?.read())?.value);
    leave.abort();
    expect(JSON.parse(/event: log\ndata: (.*)/.exec(heard)?.[1] ?? '')).toEqual({
      classId: otters.id,
      lessonIds: [lessonId],
    });
  });

  it('lets how far a visit got grow, never shrink, and nobody change another’s', async () => {
    const [one, two] = [await device(students[2]), await device(students[3])];
    const visit = nanoid();
    for (const atMs of [4_000, 9_000, 6_000])
      await one.send([entry({ kind: 'reached', atMs, totalMs: 10_000 }, visit)]);
    await two.send([entry({ kind: 'reached', atMs: 10_000, totalMs: 10_000 }, visit)]);
    const reached = (await logOf()).entries.filter(({ id }) => id === visit);
    expect(reached).toMatchObject([{ studentId: students[2]?.id, body: { atMs: 9_000 } }]);
  });

  it('says what was played, not how far somebody jumped', async () => {
    const one = await device(students[5]);
    const visit = nanoid();
    await one.send([
      entry({ kind: 'reached', atMs: 99_000, totalMs: 100_000, seen: [[97_000, 99_000]] }, visit),
    ]);
    await one.send([
      entry(
        {
          kind: 'reached',
          atMs: 99_000,
          totalMs: 100_000,
          seen: [
            [0, 40_000],
            [97_000, 99_000],
          ],
        },
        visit,
      ),
    ]);
    await one.send([
      entry({ kind: 'reached', atMs: 99_000, totalMs: 100_000, seen: [[0, 10_000]] }, visit),
    ]);
    expect((await logOf()).entries.find(({ id }) => id === visit)?.body).toMatchObject({
      seen: [
        [0, 40_000],
        [97_000, 99_000],
      ],
    });
  });

  it('is taken for two weeks after the link has closed, where it was done before', async () => {
    const one = await device(students[0]);
    const link = await shareWith({ classId: otters.id });
    const daysAgo = (days: number) => Date.now() - days * 86_400_000;
    const close = (days: number) =>
      teacher.send('PUT', `/api/shares/${link.code}`, {
        closesAt: new Date(daysAgo(days)).toISOString(),
      });
    const done = (days: number) => ({ id: nanoid(), at: daysAgo(days), body: score(days) });
    await close(1);
    const [before, after] = [done(2), done(0)];
    const sent = await one.send([before, after], link.code);
    expect([sent.status, sent.body]).toEqual([
      200,
      { refused: [{ id: after.id, code: 'closed', message: expect.stringContaining('closed') }] },
    ]);
    const kept = (await logOf()).entries.map(({ id }) => id);
    expect([kept.includes(before.id), kept.includes(after.id)]).toEqual([true, false]);
    // The lesson itself is closed all the same.
    expect((await server.client().get(`/api/follow/${link.code}`)).status).toBe(403);
    await close(15);
    expect((await one.send([done(16)], link.code)).status).toBe(403);
  });

  it('is dated by our own clock, however wrong the device’s is', async () => {
    const one = await device(students[8]);
    const now = Date.now();
    const minute = 60_000;
    for (const clock of [Date.UTC(2015, 0, 1), Date.UTC(9999, 0, 1)]) {
      const sent = entry(score(1));
      expect((await one.sendAt(clock, [{ ...sent, at: clock - 30 * minute }])).status).toBe(204);
      const kept = (await logOf()).entries.find(({ id }) => id === sent.id);
      expect(Math.abs((kept?.at ?? 0) - (now - 30 * minute))).toBeLessThan(5 * minute);
    }
    const ahead = entry(score(2));
    await one.send([{ ...ahead, at: Date.UTC(9999, 0, 1) }]);
    expect((await logOf()).entries.find(({ id }) => id === ahead.id)?.at).toBeLessThanOrEqual(
      Date.now(),
    );
    expect((await one.send([{ ...entry(score(2)), at: 1e18 }])).body.message).toBe(
      'A date between 1970 and 2100, please.',
    );
  });

  it('is capped for a student, a lesson and a day, and says what was not taken', async () => {
    const one = await device(students[9]);
    const many = Array.from({ length: MAX_ENTRIES_A_DAY + 20 }, () => entry(score(1)));
    for (let i = 0; i < MAX_ENTRIES_A_DAY; i += 100)
      expect((await one.send(many.slice(i, i + 100))).status).toBe(204);
    const over = await one.send([...many.slice(MAX_ENTRIES_A_DAY - 3)]);
    expect(over.body.refused.map(({ id }: { id: string }) => id)).toEqual(
      many.slice(MAX_ENTRIES_A_DAY).map(({ id }) => id),
    );
    expect(over.body.refused[0].message).toContain(
      '500 numbers and answers of one lesson in a day',
    );
    expect(
      (await logOf()).entries.filter(({ studentId }) => studentId === students[9]?.id),
    ).toHaveLength(MAX_ENTRIES_A_DAY);
    // Another student's go on.
    expect((await (await device(students[10])).send([entry(score(1))])).status).toBe(204);
  });

  it('is refused from strangers, from other classes, and when it is not in order', async () => {
    const one = await device(students[4]);
    const open = await shareWith({});
    const foreign = await shareWith({ classId: herons.id });
    for (const link of [open, foreign]) {
      expect((await one.send([entry(score(1))], link.code)).status).toBe(401);
      expect((await one.mine(link.code)).status).toBe(401);
    }
    expect(
      (
        await server
          .client()
          .send('POST', `/api/follow/${share.code}/entries`, { entries: [entry(score(1))] })
      ).status,
    ).toBe(401);
    expect(
      (await one.send([entry({ kind: 'signed', levelId: 'l', criterionId: 'c' })])).status,
    ).toBe(400);
    expect((await one.send([entry(score(-3))])).body.message).toContain('At least 0');
    expect(
      (await one.send(Array.from({ length: 201 }, () => entry(score(1))))).body.message,
    ).toContain('At most 200');
    expect(
      (
        await one.send([
          entry({ kind: 'answer', blockId: 't4', question: '', text: 'x'.repeat(401) }),
        ])
      ).status,
    ).toBe(400);
    expect((await join(server.client(), students[0]?.code ?? '', foreign.code)).status).toBe(404);
  });
});

describe('the teacher’s own entries and what is erased', () => {
  it('takes entries by hand for students of the class only, and gives them back', async () => {
    const id = nanoid();
    const hand = (studentId: string | undefined) => ({
      id,
      at: Date.UTC(2026, 10, 3),
      studentId,
      lessonId,
      body: score(31),
    });
    expect(
      (
        await teacher.send('POST', `/api/classes/${herons.id}/entries`, {
          entries: [hand(students[5]?.id)],
        })
      ).body.code,
    ).toBe('no-student');
    for (const at of [Date.UTC(2101, 0, 1), -1, 1.5])
      expect(
        (
          await teacher.send('POST', `/api/classes/${otters.id}/entries`, {
            entries: [{ ...hand(students[5]?.id), at }],
          })
        ).body.message,
      ).toBe('A date between 1970 and 2100, please.');
    expect(
      (
        await teacher.send('POST', `/api/classes/${otters.id}/entries`, {
          entries: [hand(students[5]?.id)],
        })
      ).status,
    ).toBe(204);
    expect((await logOf()).entries.find((one) => one.id === id)).toMatchObject({
      by: 'teacher',
      studentId: students[5]?.id,
    });
    expect((await teacher.send('DELETE', `/api/log/${id}`)).status).toBe(204);
    expect((await logOf()).entries.some((one) => one.id === id)).toBe(false);
  });

  it('forgets a student for good, on every device, and notes that it did', async () => {
    const one = await device(students[6]);
    await teacher.send('PUT', `/api/students/${students[6]?.id}`, {
      nickname: 'Gone soon',
      group: '',
      language: null,
      hand: null,
    });
    await until(
      () =>
        server.sequelize.query<{ what: string }>('SELECT what FROM audit', {
          type: QueryTypes.SELECT,
        }),
      (rows) => rows.some(({ what }) => what === 'PUT /api/students/:studentId'),
    );
    await one.send([entry(score(5)), entry(score(6))]);
    expect((await teacher.send('DELETE', `/api/students/${students[6]?.id}`)).status).toBe(204);
    expect((await one.mine()).status).toBe(401);
    expect((await logOf()).entries.some(({ studentId }) => studentId === students[6]?.id)).toBe(
      false,
    );
    expect((await teacher.get('/api/erasures')).body).toMatchObject([
      { what: 'student', entries: 2 },
    ]);
    const audited = () =>
      server.sequelize.query<{ what: string; subject: string }>(
        'SELECT what, subject FROM audit ORDER BY id',
        { type: QueryTypes.SELECT },
      );
    const told = await until(audited, (rows) =>
      rows.some(({ what }) => what === 'DELETE /api/students/:studentId'),
    );
    // That it was done is told; nothing there leads back to whom.
    expect(told.some(({ subject }) => subject === students[6]?.id)).toBe(false);
    expect(told.filter(({ what }) => what === 'PUT /api/students/:studentId')).toMatchObject([
      { subject: '' },
    ]);
  });

  it('keeps entries only as long as the class says', async () => {
    const one = await device(students[7]);
    // Counted from the day they arrived: the device's clock may have been wrong.
    const [old, wrongClock] = [entry(score(8)), { ...entry(score(9)), at: Date.UTC(2015, 0, 5) }];
    await one.send([old, wrongClock]);
    await server.sequelize.query(
      'UPDATE log_entries SET created_at = created_at - INTERVAL 71 DAY WHERE id = ?',
      { replacements: [old.id] },
    );
    await teacher.send('PUT', `/api/classes/${otters.id}`, { ...plan('Otters'), keepWeeks: 10 });
    expect(await eraseOld()).toBe(1);
    expect(((await one.mine()).body as OwnLog).entries.map(({ body }) => body)).toEqual([score(9)]);
  });

  it('takes no more than a few wrong codes from one place', async () => {
    const before = await shareWith({ classId: otters.id });
    const answers = [];
    for (let i = 0; i < 32; i += 1)
      answers.push((await join(server.client(), 'ZZZZZZ', before.code)).status);
    expect(answers.slice(0, 25)).toEqual(Array(25).fill(404));
    expect(answers.at(-1)).toBe(429);
  });

  it('erases a class with its links and all that was sent', async () => {
    expect((await teacher.send('DELETE', `/api/classes/${otters.id}`)).status).toBe(204);
    expect((await server.client().get(`/api/follow/${share.code}`)).status).toBe(404);
    expect((await teacher.get(`/api/classes/${otters.id}/log`)).status).toBe(404);
    expect((await teacher.get('/api/erasures')).body[0]).toMatchObject({ what: 'class' });
  });
});
