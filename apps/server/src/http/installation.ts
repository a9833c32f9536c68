import { readdir, stat } from 'node:fs/promises';
import path from 'node:path';
import { routes, type Installation } from '@zest/contract';
import type { Sequelize } from 'sequelize';
import { teacherText, type TeacherWord } from '@zest/core/words';
import type { Folders } from '../config.ts';
import { countRoughly } from '../db/dump.ts';
import { JobRow } from '../db/models.ts';
import { freeOnDisk } from '../media/room.ts';
import type { AddRoute } from './guard.ts';
import { answer } from './answer.ts';

async function sizeOf(folder: string): Promise<{ bytes: number; files: number }> {
  const entries = await readdir(folder, { recursive: true, withFileTypes: true }).catch(() => []);
  const sizes = await Promise.all(
    entries
      .filter((entry) => entry.isFile())
      .map((entry) =>
        stat(path.join(entry.parentPath, entry.name)).then(
          ({ size }) => size,
          () => 0,
        ),
      ),
  );
  return { bytes: sizes.reduce((sum, size) => sum + size, 0), files: sizes.length };
}

const TABLES: Readonly<Record<string, TeacherWord>> = {
  lessons: 'stored.lessons',
  lesson_revisions: 'stored.revisions',
  takes: 'stored.takes',
  classes: 'stored.classes',
  students: 'stored.students',
  log_entries: 'stored.entries',
  shares: 'stored.links',
  users: 'stored.accounts',
};

/**
 * Whether the program works, for whoever watches it; and how much there is of everything, for its
 * owner.
 */
export function addInstallationRoutes(
  route: AddRoute,
  sequelize: Sequelize,
  folders: Folders,
): void {
  const since = new Date().toISOString();
  route(routes.health, async (_req, res) => {
    const database = await sequelize.query('SELECT 1').then(
      () => true,
      () => false,
    );
    res.status(database ? 200 : 503).json({ ok: database, database });
  });
  route(routes.installation, async (_req, res) => {
    const [media, uploads, cache, freeBytes, rows] = await Promise.all([
      sizeOf(folders.media),
      sizeOf(folders.uploads),
      sizeOf(folders.segments),
      freeOnDisk(folders.media),
      countRoughly(sequelize, Object.keys(TABLES)),
    ]);
    const [waiting, running, failed] = await Promise.all([
      JobRow.count({ where: { state: ['queued', 'held'] } }),
      JobRow.count({ where: { state: 'running' } }),
      JobRow.count({ where: { state: 'failed' } }),
    ]);
    const last = await JobRow.findOne({
      where: { state: 'running' },
      order: [['updatedAt', 'DESC']],
    });
    const body: Installation = {
      since,
      memoryBytes: process.memoryUsage().rss,
      disk: {
        mediaBytes: media.bytes,
        mediaFiles: media.files,
        uploadBytes: uploads.bytes,
        cacheBytes: cache.bytes,
        freeBytes,
      },
      jobs: { waiting, running, failed },
      workerSeen: last?.updatedAt.toISOString() ?? null,
      rows: Object.entries(TABLES).map(([table, what]) => ({
        what: teacherText(what),
        count: rows[table] ?? 0,
      })),
    };
    answer(res, 'installation', body);
  });
}
