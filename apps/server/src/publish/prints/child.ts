import { makePrint, type PrintOrder } from './order.ts';

/** One order to the process, and its answer. */
export interface NumberedOrder {
  id: number;
  order: PrintOrder;
}
export type PrintAnswer = { id: number } & ({ pdf: Uint8Array } | { fault: string });

async function answerTo({ id, order }: NumberedOrder): Promise<PrintAnswer> {
  try {
    return { id, pdf: await makePrint(order) };
  } catch (error) {
    return { id, fault: error instanceof Error ? (error.stack ?? error.message) : String(error) };
  }
}

process.on(
  'message',
  (order: NumberedOrder) => void answerTo(order).then((answer) => process.send?.(answer)),
);
process.once('disconnect', () => process.exit());
