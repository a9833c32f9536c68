import type { Assembly } from '../assembly/index.ts';
import { clockStamp } from './stamp.ts';

/**
 * The captions as a SubRip file. It knows no markup of its own, so angle brackets are written as
 * they look. Times in the finished video.
 */
export function captionsToSubRip({ captions }: Pick<Assembly, 'captions'>): string {
  return captions
    .map(
      ({ startMs, endMs, lines }, i) =>
        `${i + 1}\r\n${clockStamp(startMs, ',')} --> ${clockStamp(endMs, ',')}\r\n` +
        `${lines.map((line) => line.replace(/</g, '‹').replace(/>/g, '›')).join('\r\n')}` +
        '\r\n',
    )
    .join('\r\n');
}
