import { bodies, MOST_SPOKEN, routes, type Performance, type Storage } from '@zest/contract';
import { countLanguages } from '@zest/core/lesson';
import { MARK_NUMBERS } from '@zest/core/signal';
import { nanoid } from 'nanoid';
import type { Sequelize } from 'sequelize';
import { teacherText } from '@zest/core/words';
import type { Folders } from '../config.ts';
import { sizeOfAll } from '../db/content.ts';
import { contentOf, emptyBin } from '../db/takes.ts';
import { LessonRow, PerformanceRow, TakeRow } from '../db/models.ts';
import { refuse } from '../errors.ts';
import { freeOnDisk } from '../media/room.ts';
import { spokenFile } from '../media/spoken.ts';
import type { MediaStore } from '../media/store.ts';
import { answer, readBody } from './answer.ts';
import type { AddRoute } from './guard.ts';

function performanceView({
  id,
  number,
  blockId,
  shotId,
  playedMs,
  createdAt,
}: PerformanceRow): Performance {
  return { id, number, blockId, shotId, playedMs, createdAt: createdAt.toISOString() };
}

export function addFilmingRoutes(
  route: AddRoute,
  sequelize: Sequelize,
  store: MediaStore,
  folders: Folders,
): void {
  route(routes.makePerformance, async (req, res, { teamId, lesson }) => {
    const asked = readBody(bodies.makePerformance, req.body);
    const made = await sequelize.transaction(async (transaction) => {
      // One after the other, so that no two bear the same number.
      await LessonRow.findByPk(lesson.id, { lock: transaction.LOCK.UPDATE, transaction });
      const last = await PerformanceRow.findOne({
        where: { lessonId: lesson.id },
        order: [
          ['createdAt', 'DESC'],
          ['number', 'DESC'],
        ],
        transaction,
      });
      const number = last ? (last.number + 1) % MARK_NUMBERS : 0;
      return PerformanceRow.create(
        { ...asked, id: nanoid(), teamId, lessonId: lesson.id, number },
        { transaction },
      );
    });
    answer(res.status(201), 'makePerformance', performanceView(made));
  });

  route(routes.endPerformance, async (req, res, { performance }) => {
    answer(
      res,
      'endPerformance',
      performanceView(await performance.update(readBody(bodies.endPerformance, req.body))),
    );
  });

  route(routes.storage, async (_req, res, { lesson }) => {
    const takes = await TakeRow.findAll({ where: { lessonId: lesson.id } });
    const sizeOf = (list: readonly TakeRow[]) => sizeOfAll(list.flatMap(contentOf), store);
    const bytes = await sizeOf(takes);
    const storage: Storage = {
      bytes,
      binBytes: bytes - (await sizeOf(takes.filter(({ binnedAt }) => !binnedAt))),
      freeBytes: await freeOnDisk(folders.media),
    };
    answer(res, 'storage', storage);
  });

  route(routes.emptyBin, async (_req, res, { lesson }) => {
    await emptyBin(sequelize, lesson.id, store);
    res.status(204).end();
  });

  route(routes.spoken, async (req, res) => {
    const language = countLanguages.find((known) => known === req.params['language']);
    const words = typeof req.query['words'] === 'string' ? req.query['words'].trim() : '';
    if (!language) throw refuse(404, 'no-voice', teacherText('server.no-voice'));
    if (words === '' || words.length > MOST_SPOKEN)
      throw refuse(400, 'bad-words', teacherText('server.voice-long', { most: MOST_SPOKEN }));
    const file = await spokenFile(folders.spoken, language, words);
    res.set({ 'Content-Type': 'audio/wav', 'Cache-Control': 'private, max-age=86400' });
    res.sendFile(file, { cacheControl: false, dotfiles: 'allow' });
  });
}
