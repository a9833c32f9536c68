import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import webvtt from 'webvtt-parser';
import { captionsFor } from '../assembly/index.ts';
import { captionsToWebVtt } from './index.ts';

interface ParsedCue {
  startTime: number;
  endTime: number;
  text: string;
}
/** An independent reader of the format: the W3C's webvtt-parser package. */
const parse = (file: string) =>
  new webvtt.WebVTTParser().parse(file, 'captions') as {
    cues: ParsedCue[];
    errors: { message: string }[];
  };

describe('WebVTT', () => {
  it('is read by an independent parser without complaint, with the same times and words', () => {
    fc.assert(
      fc.property(
        fc.lorem({ maxCount: 80 }),
        fc.integer({ min: 5_000, max: 5_000_000 }),
        (script, lengthMs) => {
          const captions = captionsFor(script, { startMs: 1_234, endMs: 1_234 + lengthMs });
          const { cues, errors } = parse(captionsToWebVtt({ captions }));
          expect(errors).toEqual([]);
          expect(
            cues.map((cue) => [
              Math.round(cue.startTime * 1000),
              Math.round(cue.endTime * 1000),
              cue.text,
            ]),
          ).toEqual(
            captions.map((caption) => [caption.startMs, caption.endMs, caption.lines.join('\n')]),
          );
        },
      ),
    );
  });

  it('writes out markup and arrows, so that they are text', () => {
    const file = captionsToWebVtt({
      captions: [{ startMs: 0, endMs: 3_600_500, lines: ['<b>5 > 3</b> & --> on'] }],
    });
    expect(file).toContain('00:00:00.000 --> 01:00:00.500');
    expect(file).toContain('&lt;b&gt;5 &gt; 3&lt;/b&gt; &amp; --&gt; on');
    expect(parse(file).errors).toEqual([]);
  });

  it('is a valid file without captions', () =>
    expect(parse(captionsToWebVtt({ captions: [] })).errors).toEqual([]));
});
