import { prints, routes } from '@zest/contract';
import { teacherText } from '@zest/core/words';
import { lessonAt } from '../db/lessons.ts';
import { TakeRow } from '../db/models.ts';
import { refuse } from '../errors.ts';
import type { MediaStore } from '../media/store.ts';
import { checkOf } from '../publish/check.ts';
import { reported } from '../publish/prints/check-report.tsx';
import type { Printer } from '../publish/prints/printer.ts';
import type { AddRoute } from './guard.ts';

export function addPrintRoutes(route: AddRoute, store: MediaStore, printer: Printer): void {
  route(routes.print, async (req, res, { lesson }) => {
    const print = prints.find((name) => name === req.params['print']);
    if (!print)
      throw refuse(404, 'not-found', teacherText('server.no-print', { known: prints.join(', ') }));
    const stored = await lessonAt(lesson.id, lesson.revision);
    const findings =
      print === 'check'
        ? reported(
            stored,
            await checkOf(stored, await TakeRow.findAll({ where: { lessonId: lesson.id } }), store),
          )
        : [];
    const pdf = await printer.print({ what: print, lesson: stored, findings });
    res.attachment(`${print}.pdf`).type('application/pdf').send(Buffer.from(pdf));
  });
}
