import { fork, type ChildProcess } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { teacherLanguage } from '@zest/core/words';
import type { NumberedOrder, PrintAnswer } from './child.ts';
import type { PrintOrder } from './order.ts';

const LIMIT_MS = 60_000;
/** Kept for a while with its fonts read, for the next print. */
const IDLE_MS = 60_000;
/** Built, the process's file lies beside this one's bundle; from source it is read as it is. */
const isBuilt = import.meta.url.endsWith('.js');
const file = fileURLToPath(new URL(isBuilt ? './print.js' : './child.ts', import.meta.url));

/** Makes prints in a process of its own, so that laying pages out never holds up other requests. */
export interface Printer {
  /** @throws when the print takes over a minute or cannot be made */
  print(order: PrintOrder): Promise<Uint8Array>;
}

export function makePrinter(): Printer {
  let child: ChildProcess | null = null;
  let idle: NodeJS.Timeout | undefined;
  let orders = 0;
  const waiting = new Map<
    number,
    { done: (pdf: Uint8Array) => void; fail: (error: Error) => void }
  >();
  const end = (error: Error) => {
    child?.kill('SIGKILL');
    child = null;
    for (const { fail } of waiting.values()) fail(error);
    waiting.clear();
  };
  const start = () => {
    const made = fork(file, [], {
      execArgv: isBuilt ? [] : ['--import', 'tsx'],
      serialization: 'advanced',
    });
    made.on('message', (answer: PrintAnswer) => {
      const order = waiting.get(answer.id);
      waiting.delete(answer.id);
      if ('pdf' in answer) order?.done(answer.pdf);
      else order?.fail(new Error(answer.fault));
    });
    made.on('error', end);
    made.on('exit', () => made === child && end(new Error('The print process ended.')));
    // It never keeps the server from ending.
    made.unref();
    made.channel?.unref();
    return made;
  };
  return {
    async print(order) {
      clearTimeout(idle);
      child ??= start();
      const sent: NumberedOrder = { id: (orders += 1), order, language: teacherLanguage() };
      let limit: NodeJS.Timeout | undefined;
      try {
        return await new Promise<Uint8Array>((done, fail) => {
          waiting.set(sent.id, { done, fail });
          limit = setTimeout(
            () => end(new Error(`The ${order.what} print took over a minute.`)),
            LIMIT_MS,
          );
          child?.send(sent);
        });
      } finally {
        clearTimeout(limit);
        if (waiting.size === 0) idle = setTimeout(() => end(new Error('Idle.')), IDLE_MS).unref();
      }
    },
  };
}
