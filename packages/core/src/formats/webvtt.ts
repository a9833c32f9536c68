import type { Assembly } from '../assembly/index.ts';

function timestamp(ms: number): string {
  const two = (n: number) => String(n).padStart(2, '0');
  const hours = Math.floor(ms / 3_600_000);
  const minutes = Math.floor(ms / 60_000) % 60;
  const seconds = Math.floor(ms / 1000) % 60;
  return `${two(hours)}:${two(minutes)}:${two(seconds)}.${String(ms % 1000).padStart(3, '0')}`;
}

/** Cue text with the characters WebVTT reads as markup written out, and no `-->`. */
function escaped(line: string): string {
  return line.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');
}

/** The captions as a WebVTT file (W3C). Times in the finished video. */
export function captionsToWebVtt(assembly: Pick<Assembly, 'captions'>): string {
  const cues = assembly.captions.map(
    (caption, i) =>
      `${i + 1}\n${timestamp(caption.startMs)} --> ${timestamp(caption.endMs)}\n${caption.lines.map(escaped).join('\n')}\n`,
  );
  return ['WEBVTT\n', ...cues].join('\n');
}
