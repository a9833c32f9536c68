import { execFileSync } from 'node:child_process';
import { afterAll, describe, expect, it } from 'vitest';
import { footageFolder } from '../testing/footage.ts';
import { marksIn } from './marks.ts';

const footage = footageFolder();
afterAll(() => footage.remove());

const WORDS =
  'Stand where you can be seen from head to foot. Rope behind your heels, elbows ' +
  'close, small jumps. Seven, eight, nine, ten. Swap sides, and again! Breathe out ' +
  'slowly, shoulders down. Sssh, listen: three, two, one, go.';

describe('ten minutes of speech and music', () => {
  it('hold no sync mark', async () => {
    // Synthetic speech in two voices over chords, a beat and glides that sweep through the marks'
    // band.
    const voices = ['en-gb', 'en-us'].map((voice) => {
      const file = footage.at(`${voice}.wav`);
      execFileSync('espeak-ng', ['-v', voice, '-s', '150', '-w', file, WORDS]);
      return file;
    });
    const music =
      '0.12*sin(2*PI*220*t)+0.12*sin(2*PI*277*t)+0.1*sin(2*PI*1760*t)' +
      '+0.15*sin(2*PI*(2500*t+900*sin(t*5)))+0.5*exp(-mod(t\\,0.5)*30)*(random(0)-0.5)';
    const file = footage.at('long.wav');
    execFileSync('ffmpeg', [
      ...[
        '-y',
        '-v',
        'error',
        '-stream_loop',
        '-1',
        '-i',
        voices[0] ?? '',
        '-stream_loop',
        '-1',
        '-i',
        voices[1] ?? '',
        '-f',
        'lavfi',
        '-i',
        `aevalsrc=${music}:s=16000`,
      ],
      ...[
        '-filter_complex',
        '[0:a]aresample=16000[a];[1:a]adelay=4000,aresample=16000[b];[a][b][2:a]amix=inputs=3:duration=longest',
        '-t',
        '600',
        '-c:a',
        'aac',
        footage.at('long.m4a'),
      ],
    ]);
    execFileSync('ffmpeg', [
      '-y',
      '-v',
      'error',
      '-i',
      footage.at('long.m4a'),
      file.replace('.wav', '.mp4'),
    ]);
    expect(await marksIn(footage.at('long.mp4'))).toEqual([]);
  }, 180_000);
});
