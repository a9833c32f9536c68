import type { Print } from '@zest/contract';
import type { Lesson } from '@zest/core/lesson';
import type { LinkCard, StudentCard } from './cards.tsx';
import { classCardsPdf, linkCardPdf } from './cards.tsx';
import type { ReportedFinding } from './check-report.tsx';
import { printLesson } from './index.tsx';
import { recordCardPdf, type RecordCard } from './record-card.tsx';

/** Everything that can be put on paper, and what it is made of. */
export type PrintOrder =
  /** `findings` are for the check's report only. */
  | { what: Print; lesson: Lesson; findings: readonly ReportedFinding[] }
  | {
      what: 'class-cards';
      name: string;
      classCode: string;
      address: string;
      cards: readonly StudentCard[];
    }
  | { what: 'link-card'; card: LinkCard }
  | { what: 'record-card'; card: RecordCard };

/** Makes a print. PDF, A4. */
export function makePrint(order: PrintOrder): Promise<Buffer> {
  switch (order.what) {
    case 'class-cards':
      return classCardsPdf(order.name, order.classCode, order.address, order.cards);
    case 'link-card':
      return linkCardPdf(order.card);
    case 'record-card':
      return recordCardPdf(order.card);
    default:
      return printLesson(order.what, order.lesson, order.findings);
  }
}
