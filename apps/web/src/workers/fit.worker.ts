import type { Lesson } from '@zest/core/lesson';
import { fitLesson } from '@zest/core/schedule';

/** Fitting looks at very many ways: it is done beside the page. */
self.onmessage = ({ data }: MessageEvent<Lesson>) => {
  self.postMessage(fitLesson(data));
};
