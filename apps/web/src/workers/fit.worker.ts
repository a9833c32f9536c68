import type { Lesson } from '@zest/core/lesson';
import { fitLesson } from '@zest/core/schedule';

/** Fitting is exact and may take a moment: it is reckoned beside the page. */
self.onmessage = ({ data }: MessageEvent<{ call: number; lesson: Lesson }>) => {
  self.postMessage({ call: data.call, result: fitLesson(data.lesson) });
};
