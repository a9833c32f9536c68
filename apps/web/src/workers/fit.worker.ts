import { fitLesson } from '@zest/core/schedule';
import { speakToTeachers } from '@zest/core/words';
import type { FitOrder } from './fit.ts';

async function answer({ lesson, language }: FitOrder): Promise<void> {
  await speakToTeachers(language);
  self.postMessage(fitLesson(lesson));
}

/** Fitting looks at very many ways: it is done beside the page. */
self.onmessage = ({ data }: MessageEvent<FitOrder>) => void answer(data);
