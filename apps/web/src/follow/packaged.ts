import type { PackagedLesson } from '@zest/contract';
import { readFollowLesson } from '@zest/contract/guest-answers';
import { placeOnDevice } from './device.ts';
import { findApi, ScormReport } from './scorm.ts';
import type { LessonSource } from './source.ts';
import { say } from './words/index.ts';

declare global {
  interface Window {
    zestLesson?: PackagedLesson;
  }
}

/**
 * The lesson the page came with. Where a learning platform runs it, that is told how far the
 * student got.
 */
export function packageSource(): LessonSource {
  const packed = window.zestLesson;
  const api = findApi(window);
  const report = api && new ScormReport(api);
  if (report) addEventListener('pagehide', () => report.finish());
  const key = packed?.key ?? 'package';
  return {
    key,
    place: report?.place ?? placeOnDevice(key),
    code: null,
    load: ({ hand, language }) => {
      const found =
        packed?.variants.find(
          ({ choice }) => choice.hand === hand && choice.language === language,
        ) ?? packed?.variants[0];
      const lesson = found && readFollowLesson(found.lesson);
      return Promise.resolve(
        lesson
          ? { kind: 'ready', value: lesson }
          : { kind: 'fault', status: 404, message: say('fault.folder') },
      );
    },
    takeUrl: ({ id }) => `takes/${id}.mp4`,
    ...(report && { report: (body) => report.note(body) }),
  };
}
