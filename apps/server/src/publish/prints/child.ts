import type { Print } from '@zest/contract';
import type { Lesson } from '@zest/core/lesson';
import type { ReportedFinding } from './check-report.tsx';
import { printLesson } from './index.tsx';

/** One order to the process, and its answer. */
export interface PrintOrder {
  id: number;
  print: Print;
  lesson: Lesson;
  /** For the check's report only. */
  findings: readonly ReportedFinding[];
}
export type PrintAnswer = { id: number } & ({ pdf: Uint8Array } | { fault: string });

async function answerTo({ id, print, lesson, findings }: PrintOrder): Promise<PrintAnswer> {
  try {
    return { id, pdf: await printLesson(print, lesson, findings) };
  } catch (error) {
    return { id, fault: error instanceof Error ? (error.stack ?? error.message) : String(error) };
  }
}

process.on('message', (order: PrintOrder) => void answerTo(order).then((answer) => process.send?.(answer)));
process.once('disconnect', () => process.exit());
