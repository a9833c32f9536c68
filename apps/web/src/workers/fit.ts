import type { Lesson } from '@zest/core/lesson';
import type { FitResult } from '@zest/core/schedule';
import { teacherLanguage, type TeacherLanguage } from '@zest/core/words';

/** What a worker is to fit, and the language its words are in. */
export interface FitOrder {
  lesson: Lesson;
  language: TeacherLanguage;
}

/** A fit that is being worked out. */
export interface Fitting {
  /** The proposal; null when it was stopped. Rejects when the worker fails. */
  result: Promise<FitResult | null>;
  stop: () => void;
}

/** Fits the lesson in a worker of its own, which a stop ends at once. */
export function fitInWorker(lesson: Lesson): Fitting {
  const worker = new Worker(new URL('./fit.worker.ts', import.meta.url), { type: 'module' });
  let stop: () => void = () => undefined;
  const result = new Promise<FitResult | null>((resolve, reject) => {
    stop = () => resolve(null);
    worker.onmessage = ({ data }: MessageEvent<FitResult>) => resolve(data);
    worker.onerror = (event) => reject(new Error(event.message));
    worker.postMessage({ lesson, language: teacherLanguage() } satisfies FitOrder);
  }).finally(() => worker.terminate());
  return { result, stop };
}
