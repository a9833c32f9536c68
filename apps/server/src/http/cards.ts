import { paperWord } from '@zest/core/words';
import type { Request, Response } from 'express';
import { routes } from '@zest/contract';
import type { Config } from '../config.ts';
import { classView, entryView } from '../db/classes.ts';
import { lessonAt } from '../db/lessons.ts';
import { ClassRow, LogEntryRow, StudentRow } from '../db/log-models.ts';
import type { Printer } from '../publish/prints/printer.ts';
import type { PrintOrder } from '../publish/prints/order.ts';
import { linksBeginWith } from './address.ts';
import type { AddRoute } from './guard.ts';

/** The time zone of whoever prints; one nobody knows is the world's. */
function zoneOf({ query }: Request): string {
  const zone = typeof query['zone'] === 'string' ? query['zone'] : 'UTC';
  try {
    return new Intl.DateTimeFormat('en-GB', { timeZone: zone }).resolvedOptions().timeZone;
  } catch {
    return 'UTC';
  }
}

function openWords(
  opensAt: Date | null,
  closesAt: Date | null,
  timeZone: string,
  language: string,
): string {
  const day = new Intl.DateTimeFormat(language === 'en' ? 'en-GB' : language, {
    dateStyle: 'long',
    timeStyle: 'short',
    timeZone,
  });
  const [from, to] = [opensAt, closesAt].map((at) => at && day.format(at));
  const zone = timeZone;
  if (from && to) return paperWord(language, 'link.open-between', { from, to, zone });
  if (from) return paperWord(language, 'link.open-from', { from, zone });
  return to ? paperWord(language, 'link.open-until', { to, zone }) : '';
}

/** Cards on paper: of a class, of a link, of what one student has reached. */
export function addCardRoutes(route: AddRoute, config: Config, printer: Printer): void {
  const send = async (res: Response, name: string, order: PrintOrder) => {
    res
      .attachment(name)
      .type('application/pdf')
      .send(Buffer.from(await printer.print(order)));
  };
  route(routes.classCards, async (req, res, { schoolClass }) => {
    const { name, code } = classView(schoolClass, 0);
    const students = await StudentRow.findAll({
      where: { classId: schoolClass.id },
      order: [['nickname', 'ASC']],
    });
    const address = `${await linksBeginWith(config, req)}/go`;
    // Behind the # codes stay on the device: no server and no log of one sees them.
    const cards = students.map((student) => ({
      nickname: student.nickname,
      group: student.team,
      code: student.code,
      link: `${address}#class=${code}&card=${student.code}`,
    }));
    await send(res, 'cards.pdf', { what: 'class-cards', name, classCode: code, address, cards });
  });
  route(routes.shareCard, async (req, res, { share }) => {
    const { title, series, settings } = await lessonAt(share.lessonId, share.revision);
    const { language } = settings;
    const schoolClass = share.classId === null ? null : await ClassRow.findByPk(share.classId);
    const origin = await linksBeginWith(config, req);
    const codes =
      schoolClass && share.spoken
        ? { classCode: schoolClass.code, lessonCode: share.spoken, address: `${origin}/go` }
        : null;
    const place = [
      schoolClass ? classView(schoolClass, 0).name : '',
      series.name,
      series.week === null ? '' : paperWord(language, 'place.week', { week: series.week }),
    ]
      .filter((text) => text !== '')
      .join(' · ');
    await send(res, 'link.pdf', {
      what: 'link-card',
      card: {
        title,
        place,
        link: `${origin}/follow/${share.code}`,
        open: openWords(share.opensAt, share.closesAt, zoneOf(req), language),
        codes,
        language,
      },
    });
  });
  route(routes.studentRecord, async (_req, res, { student }) => {
    const schoolClass = await ClassRow.findByPk(student.classId, { rejectOnEmpty: true });
    const { name, credits } = classView(schoolClass, 0);
    const entries = await LogEntryRow.findAll({
      where: { studentId: student.id },
      order: [['at', 'ASC']],
    });
    await send(res, 'record.pdf', {
      what: 'record-card',
      card: {
        nickname: student.nickname,
        className: name,
        credits,
        entries: entries.map(entryView),
        at: Date.now(),
      },
    });
  });
}
