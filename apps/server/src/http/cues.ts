import {
  bodies,
  cueEntryBodySchema,
  MAX_CUE_ENTRIES,
  routes,
  type StoredCueEntry,
} from '@zest/contract';
import { entryUses } from '@zest/core/lesson';
import { nanoid } from 'nanoid';
import type { Sequelize } from 'sequelize';
import { teacherText } from '@zest/core/words';
import { newestLessons } from '../db/lessons.ts';
import { CueEntryRow } from '../db/models.ts';
import { refuse } from '../errors.ts';
import { answer, readBody } from './answer.ts';
import type { AddRoute } from './guard.ts';

function view(row: CueEntryRow, uses = 0): StoredCueEntry {
  return { ...cueEntryBodySchema.parse(JSON.parse(row.document)), id: row.id, uses };
}

/** The teacher's cue library: one entry, used in many lessons. */
export function addCueRoutes(route: AddRoute, sequelize: Sequelize): void {
  route(routes.cues, async (_req, res, { teamId }) => {
    const uses = new Map<string, number>();
    for (const { lesson } of await newestLessons(sequelize, teamId)) {
      for (const [id, count] of entryUses(lesson)) uses.set(id, (uses.get(id) ?? 0) + count);
    }
    const rows = await CueEntryRow.findAll({
      where: { teamId },
      order: [['createdAt', 'ASC']],
    });
    answer(
      res,
      'cues',
      rows.map((row) => view(row, uses.get(row.id))),
    );
  });
  route(routes.makeCueEntry, async (req, res, { teamId }) => {
    const { id = nanoid(), ...entry } = readBody(bodies.makeCueEntry, req.body);
    if ((await CueEntryRow.count({ where: { teamId } })) >= MAX_CUE_ENTRIES) {
      throw refuse(422, 'full', teacherText('server.most-cues', { most: MAX_CUE_ENTRIES }));
    }
    if (await CueEntryRow.findByPk(id))
      throw refuse(409, 'there-already', teacherText('server.cue-there'));
    res
      .status(201)
      .json(view(await CueEntryRow.create({ id, teamId, document: JSON.stringify(entry) })));
  });
  route(routes.changeCueEntry, async (req, res, { cueEntry }) => {
    const entry = readBody(bodies.changeCueEntry, req.body);
    answer(res, 'changeCueEntry', view(await cueEntry.update({ document: JSON.stringify(entry) })));
  });
  // Cues made from it stay in their lessons, as cues of their own.
  route(routes.deleteCueEntry, async (_req, res, { cueEntry }) => {
    await cueEntry.destroy();
    res.status(204).end();
  });
}
