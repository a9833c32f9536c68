import { speakToTeachers, type TeacherLanguage } from '@zest/core/words';
import { makePrint, type PrintOrder } from './order.ts';

/** One order to the process, and its answer. */
export interface NumberedOrder {
  id: number;
  order: PrintOrder;
  /** The language of whoever asked for it. */
  language: TeacherLanguage;
}
export type PrintAnswer = { id: number } & ({ pdf: Uint8Array } | { fault: string });

async function answerTo({ id, order, language }: NumberedOrder): Promise<PrintAnswer> {
  try {
    await speakToTeachers(language);
    return { id, pdf: await makePrint(order) };
  } catch (error) {
    return { id, fault: error instanceof Error ? (error.stack ?? error.message) : String(error) };
  }
}

// One after the other: all texts of the process are in one language at a time.
let last = Promise.resolve();
process.on('message', (order: NumberedOrder) => {
  last = last.then(async () => void process.send?.(await answerTo(order)));
});
process.once('disconnect', () => process.exit());
