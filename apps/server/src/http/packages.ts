import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import { packageKinds, routes, type PackagedLesson } from '@zest/contract';
import { teacherText } from '@zest/core/words';
import { lessonAt } from '../db/lessons.ts';
import { refuse } from '../errors.ts';
import type { MediaStore } from '../media/store.ts';
import { followLesson } from '../cut/follow-lesson.ts';
import { packLesson } from '../publish/package.ts';
import type { AddRoute } from './guard.ts';

/**
 * Lessons to take away, that play without this server. `webDir` is the folder of the built pages;
 * the page of packages lies beside it.
 */
export function addPackageRoutes(route: AddRoute, store: MediaStore, webDir: string | null): void {
  route(routes.package, async (req, res, { lesson }) => {
    const kind = packageKinds.find((known) => known === req.params['kind']);
    if (!kind)
      throw refuse(
        404,
        'not-found',
        teacherText('server.no-package', { known: packageKinds.join(', ') }),
      );
    if (webDir === null)
      throw refuse(
        503,
        'no-pages',
        'This server runs without its pages, which a package holds a copy of. Start it with its start command.',
      );
    const { id: lessonId, revision } = lesson;
    const { second } = await lessonAt(lessonId, revision);
    const variants: PackagedLesson['variants'] = [];
    const shas = new Map<string, string>();
    for (const language of second ? (['first', 'second'] as const) : (['first'] as const)) {
      for (const hand of ['as filmed', 'other hand'] as const) {
        const made = await followLesson(
          { lessonId, revision, version: 1, classId: null },
          { hand, language, seed: null },
          store,
        );
        variants.push({ choice: { hand, language }, lesson: made.lesson });
        for (const [id, sha] of made.shas) shas.set(id, sha);
      }
    }
    if (variants[0]?.lesson.assembly.segments.length === 0)
      throw refuse(422, 'empty-lesson', teacherText('server.nothing-to-take'));
    const zip = await packLesson(kind, variants, shas, store, path.join(webDir, '../package'));
    res
      .attachment(kind === 'scorm' ? 'lesson-scorm.zip' : 'lesson-folder.zip')
      .type('application/zip');
    await pipeline(zip, res);
  });
}
