import { QueryTypes, Sequelize } from 'sequelize';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { testDatabase, testServer, type TestServer } from '../testing/server.ts';
import { migrate, migrateBackTo } from './migrations.ts';

let server: TestServer;
let database: Sequelize;

beforeAll(async () => {
  server = await testServer();
  const teacher = server.client();
  await teacher.signUp();
  const { id } = await teacher.makeLesson();
  await teacher.makeTake(id);
  const { name, password, port } = testDatabase();
  database = new Sequelize(name, 'zest', password, {
    dialect: 'mysql',
    host: '127.0.0.1',
    port,
    logging: false,
  });
});
afterAll(async () => {
  await database.close();
  await server.stop();
});

/** Columns of every table but the list of migrations itself. */
const shape = async () => {
  const rows = await database.query<{ place: string }>(
    "SELECT CONCAT_WS(' ', table_name, column_name, column_type, is_nullable, " +
      "IFNULL(column_default, '-')) AS place FROM information_schema.columns WHERE " +
      'table_schema = DATABASE() ORDER BY table_name, column_name',
    { type: QueryTypes.SELECT },
  );
  return rows.map(({ place }) => place);
};
const count = async (table: string) =>
  (
    await database.query<{ n: number }>(`SELECT COUNT(*) AS n FROM ${table}`, {
      type: QueryTypes.SELECT,
    })
  )[0]?.n;
const names = async () =>
  (
    await database.query<{ name: string }>('SELECT name FROM migrations ORDER BY name', {
      type: QueryTypes.SELECT,
    })
  ).map(({ name }) => name);

describe('changes of the database', () => {
  it('go back one by one and forth again to the same shape, and what was there before them stays', async () => {
    const newest = await shape();
    const all = await names();
    expect(all.length).toBeGreaterThanOrEqual(7);
    for (const name of all.slice(0, -1).reverse()) {
      await migrateBackTo(database, name);
      expect((await names()).at(-1)).toBe(name);
    }
    expect([
      await count('users'),
      await count('lessons'),
      await count('lesson_revisions'),
      await count('takes'),
    ]).toEqual([1, 1, 1, 1]);
    await migrate(database);
    expect(await shape()).toEqual(newest);
    expect([await count('users'), await count('lessons'), await count('takes')]).toEqual([1, 1, 1]);
    // Whoever was there before teams is the owner of their own.
    expect(
      await database.query("SELECT 1 FROM users WHERE team_id = id AND role = 'owner'", {
        type: QueryTypes.SELECT,
      }),
    ).toHaveLength(1);
  });

  describe('with power cuts', () => {
    type Asked = Parameters<Sequelize['query']>;
    /**
     * Runs it with the power cut at every statement that `cuts` says, before it ran or before
     * anybody heard that it had; false when all of it ran.
     */
    const isCut = async (
      hasRun: boolean,
      cuts: (asked: Asked) => boolean,
      work: () => Promise<void>,
    ) => {
      const cut = vi.spyOn(database, 'query').mockImplementation(async (...asked: unknown[]) => {
        const ends = cuts(asked as Asked);
        const answer =
          ends && !hasRun
            ? null
            : await (Sequelize.prototype.query as (...all: unknown[]) => Promise<unknown>).apply(
                database,
                asked,
              );
        if (ends) throw new Error('The power is gone.');
        return answer as never;
      });
      const wasCut = await work().then(
        () => false,
        (error: unknown) =>
          /The power is gone/.test(String(error)) || Promise.reject(error as Error),
      );
      cut.mockRestore();
      return wasCut;
    };
    const oldest = '0001-first-tables';

    it.each([false, true])(
      'at each of their statements they go on from there, down and up (had it run: %s)',
      async (hasRun) => {
        const newest = await shape();
        let cuts = 0;
        for (const work of [() => migrateBackTo(database, oldest), () => migrate(database)]) {
          const seen = new Set<string>();
          const once = ([sql, options]: Asked) => {
            const key =
              `${JSON.stringify(sql)} ` +
              `${JSON.stringify((options as { replacements?: unknown } | undefined)?.replacements)}`;
            return !seen.has(key) && Boolean(seen.add(key));
          };
          while (await isCut(hasRun, once, work)) cuts += 1;
        }
        expect(await shape()).toEqual(newest);
        expect([await count('users'), await count('lessons'), await count('takes')]).toEqual([
          1, 1, 1,
        ]);
        expect(cuts).toBeGreaterThan(80);
      },
    );

    it('what was half taken back is made anew', async () => {
      const newest = await shape();
      for (let n = 3; ; n += 9) {
        let left = n;
        const wasCut = await isCut(
          n % 2 === 0,
          () => (left -= 1) === 0,
          () => migrateBackTo(database, oldest),
        );
        await migrate(database);
        expect(await shape()).toEqual(newest);
        if (!wasCut) break;
      }
    });
  });

  it('name what there is when asked for another one', async () => {
    await expect(migrateBackTo(database, 'nowhere')).rejects.toThrow(
      'There are: 0001-first-tables',
    );
  });
});
