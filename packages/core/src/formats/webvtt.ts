import type { Assembly } from '../assembly/index.ts';
import { clockStamp } from './stamp.ts';

/** Cue text with the characters WebVTT reads as markup written out, and no `-->`. */
function escaped(line: string): string {
  return line.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');
}

/** The captions as a WebVTT file (W3C). Times in the finished video. */
export function captionsToWebVtt(assembly: Pick<Assembly, 'captions'>): string {
  const cues = assembly.captions.map(
    (caption, i) =>
      `${i + 1}\n${clockStamp(caption.startMs, '.')} --> ` +
      `${clockStamp(caption.endMs, '.')}\n${caption.lines.map(escaped).join('\n')}\n`,
  );
  return ['WEBVTT\n', ...cues].join('\n');
}
