import { prints } from '@zest/contract';
import { lessonAt } from '../db/lessons.ts';
import { refuse } from '../errors.ts';
import { makePrinter } from '../publish/prints/printer.ts';
import type { AddRoute } from './guard.ts';

export function addPrintRoutes(route: AddRoute): void {
  const printer = makePrinter();
  route('GET', '/api/lessons/:lessonId/prints/:print', async (req, res, { lesson }) => {
    const print = prints.find((name) => name === req.params['print']);
    if (!print) throw refuse(404, 'not-found', `There is no such print. There are: ${prints.join(', ')}.`);
    const pdf = await printer.print(print, await lessonAt(lesson.id, lesson.revision));
    res.attachment(`${print}.pdf`).type('application/pdf').send(Buffer.from(pdf));
  });
}
