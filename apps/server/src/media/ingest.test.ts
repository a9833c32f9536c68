import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { footageFolder, frameOf } from '../testing/footage.ts';
import { sayStored } from '@zest/core/words';
import { FootageFault, makeWorkingCopy } from './ingest.ts';
import { probe } from './probe.ts';
import { CancelledError } from './run.ts';

const footage = footageFolder();
const folder = mkdtempSync(path.join(os.tmpdir(), 'zest-ingest-'));
afterAll(() => {
  footage.remove();
  rmSync(folder, { recursive: true, force: true });
});

const h264 = ['-c:v', 'libx264', '-preset', 'ultrafast', '-pix_fmt', 'yuv420p'];
const copy = (file: string, signal?: AbortSignal) =>
  makeWorkingCopy(file, folder, () => undefined, signal);

describe('phone files of every kind', () => {
  it.each([
    ['h264.mp4', h264, {}, [320, 240]],
    ['larger.mp4', h264, { size: '2560x1440' }, [1920, 1080]],
    ['upright.mp4', h264, { size: '480x854' }, [480, 854]],
    [
      'odd.mkv',
      ['-c:v', 'libx264', '-preset', 'ultrafast', '-pix_fmt', 'yuv444p'],
      { size: '321x241' },
      [322, 242],
    ],
    [
      'hevc.mov',
      [
        '-c:v',
        'libx265',
        '-preset',
        'ultrafast',
        '-x265-params',
        'log-level=none',
        '-tag:v',
        'hvc1',
      ],
      {},
      [320, 240],
    ],
    ['vp8.webm', ['-c:v', 'libvpx', '-b:v', '500k', '-c:a', 'libopus'], {}, [320, 240]],
    [
      'vp9.webm',
      ['-c:v', 'libvpx-vp9', '-deadline', 'realtime', '-cpu-used', '8', '-c:a', 'libopus'],
      { rate: 24 },
      [320, 240],
    ],
    ['av1.mkv', ['-c:v', 'libsvtav1', '-preset', '12', '-c:a', 'libopus'], {}, [320, 240]],
    ['slow.mp4', h264, { rate: 60 }, [320, 240]],
  ] as const)(
    '%s becomes a working copy of 30 frames a second',
    async (name, args, options, size) => {
      const made = await copy(footage.make(name, 2, [...args], options));
      const facts = await probe(made.video, true);
      expect(facts.video).toMatchObject({
        codec: 'h264',
        width: size[0],
        height: size[1],
        rate: '30/1',
        packets: 60,
      });
      expect(facts.audio).toMatchObject({ codec: 'aac', sampleRate: 48_000 });
      expect([made.frames, made.hasSound, made.thumbCount, made.width, made.height]).toEqual([
        60,
        true,
        1,
        ...size,
      ]);
      // What is too large for the pages is there smaller as well, frame for frame.
      expect(made.preview !== null).toBe(size[0] > 1280);
      if (made.preview) {
        expect((await probe(made.preview, true)).video).toMatchObject({
          codec: 'h264',
          width: 1280,
          height: 720,
          rate: '30/1',
          packets: 60,
        });
        expect(frameOf(made.preview, 40).length).toBe(1280 * 720 * 3);
      }
      const wave = readFileSync(made.wave);
      expect(Math.abs(wave.length - 100)).toBeLessThanOrEqual(3);
      expect(Math.max(...wave)).toBeGreaterThan(20);
      expect(statSync(made.thumbs).size).toBeGreaterThan(500);
    },
  );

  it('turns a rotated recording upright', async () => {
    footage.make('plain.mp4', 1, h264);
    execFileSync('ffmpeg', [
      '-y',
      '-v',
      'error',
      '-i',
      footage.at('plain.mp4'),
      '-c',
      'copy',
      '-metadata:s:v',
      'rotate=90',
      footage.at('rotated.mp4'),
    ]);
    const made = await copy(footage.at('rotated.mp4'));
    expect((await probe(made.video)).video).toMatchObject({ width: 240, height: 320 });
  });

  it('evens out a variable frame rate without losing time', async () => {
    const uneven = footage.make('uneven.mkv', 3, [
      ...h264,
      '-vf',
      `select='not(mod(n\\,7))+lt(mod(n\\,11)\\,3)'`,
      '-vsync',
      'vfr',
    ]);
    const made = await copy(uneven);
    expect(Math.abs(made.frames - 90)).toBeLessThanOrEqual(3);
    expect((await probe(made.video)).video?.rate).toBe('30/1');
  });

  it('keeps full-range colours in range: white stays white, black stays black', async () => {
    const full = [
      '-vf',
      'geq=lum=if(lt(X\\,160)\\,0\\,255):cb=128:cr=128,format=yuvj420p',
      '-c:v',
      'libx264',
      '-color_range',
      'pc',
    ];
    const made = await copy(footage.make('full.mp4', 1, full, { sound: false }));
    const pixels = frameOf(made.video, 5);
    const at = (x: number) => pixels[(120 * 320 + x) * 3] ?? 0;
    expect(at(40)).toBeLessThan(8);
    expect(at(280)).toBeGreaterThan(247);
  });

  it('only copies what is a working copy already, and not what merely looks like one', async () => {
    const asWorking = [
      ...h264,
      '-vf',
      'scale=out_color_matrix=bt709:out_range=tv',
      '-colorspace',
      'bt709',
      '-color_range',
      'tv',
      '-bf',
      '0',
      '-sc_threshold',
      '0',
      '-ar',
      '48000',
      '-c:a',
      'aac',
    ];
    const bytesOf = async (name: string, gop: string) => {
      const source = footage.make(name, 2, [...asWorking, '-g', gop, '-keyint_min', gop]);
      const streams = (file: string) =>
        execFileSync('ffmpeg', [
          '-v',
          'error',
          '-i',
          file,
          '-map',
          '0:v',
          '-c',
          'copy',
          '-f',
          'h264',
          'pipe:1',
        ]);
      return streams((await copy(source)).video).equals(streams(source));
    };
    expect(await bytesOf('ready.mp4', '15')).toBe(true);
    expect(await bytesOf('long-gop.mp4', '60')).toBe(false);
  });

  it('keeps as many lines as were filmed, up to 1080: lines of two pixels stay apart', async () => {
    const stripes = [
      '-vf',
      'geq=lum=if(lt(mod(X\\,4)\\,2)\\,40\\,215):cb=128:cr=128,format=yuv420p',
      '-c:v',
      'libx264',
      '-preset',
      'ultrafast',
      '-crf',
      '10',
    ];
    const made = await copy(
      footage.make('stripes.mp4', 1, stripes, { size: '1920x1080', sound: false }),
    );
    const rows = (file: string, width: number) => {
      const pixels = frameOf(file, 5);
      const row = Array.from({ length: 200 }, (_, x) => pixels[(100 * width + 400 + x) * 3] ?? 0);
      return Math.max(...row) - Math.min(...row);
    };
    expect(rows(made.video, 1920)).toBeGreaterThan(120);
    expect(rows(made.preview ?? '', 1280)).toBeLessThan(rows(made.video, 1920));
  });

  it('takes the loudest of several sound tracks, or the one that is chosen', async () => {
    const file = footage.at('tracks.mkv');
    const tone = (hz: number, volume: number) => [
      '-f',
      'lavfi',
      '-i',
      `sine=frequency=${hz}:duration=2,volume=${volume}`,
    ];
    execFileSync('ffmpeg', [
      '-y',
      '-v',
      'error',
      '-f',
      'lavfi',
      '-i',
      'testsrc=size=320x240:rate=30:duration=2',
      ...tone(300, 0.05),
      ...tone(900, 1),
      '-f',
      'lavfi',
      '-i',
      'anullsrc=r=48000:cl=stereo:d=2',
      ...['-map', '0:v', '-map', '1:a', '-map', '2:a', '-map', '3:a'],
      ...h264,
      '-c:a',
      'aac',
      '-metadata:s:a:1',
      'title=Clip-on',
      file,
    ]);
    const hz = (video: string) => {
      const raw = execFileSync('ffmpeg', [
        '-v',
        'error',
        '-i',
        video,
        '-vn',
        '-ac',
        '1',
        '-ar',
        '8000',
        '-f',
        's16le',
        'pipe:1',
      ]);
      let crossings = 0;
      for (let i = 2; i + 1 < raw.length; i += 2)
        if (raw.readInt16LE(i - 2) < 0 !== raw.readInt16LE(i) < 0) crossings += 1;
      return crossings / 2 / (raw.length / 16_000);
    };
    const loudest = await copy(file);
    expect([
      loudest.track,
      loudest.tracks.map(({ name, levelDb }) => [name, levelDb === null]),
    ]).toEqual([
      1,
      [
        ['', false],
        ['Clip-on', false],
        ['', true],
      ],
    ]);
    expect(hz(loudest.video)).toBeCloseTo(900, -2);
    const chosen = await makeWorkingCopy(file, folder, () => undefined, undefined, 0);
    expect(chosen.track).toBe(0);
    expect(hz(chosen.video)).toBeCloseTo(300, -2);
  });

  it.each([
    ['the same on both sides', 'aevalsrc=0.3*sin(2*PI*500*t)|0.3*sin(2*PI*500*t):d=2', false],
    ['on one side only', 'aevalsrc=0.3*sin(2*PI*500*t)|0:d=2', false],
    ['of two unlike sides', 'aevalsrc=0.3*sin(2*PI*500*t)|0.3*sin(2*PI*737*t):d=2', false],
    ['of opposed sides', 'aevalsrc=0.3*sin(2*PI*500*t)|-0.3*sin(2*PI*500*t):d=2', true],
  ] as const)('is never silent in one loudspeaker: sound %s', async (_name, source, isOpposed) => {
    const file = footage.at(`phase-${Math.random()}.mkv`);
    execFileSync('ffmpeg', [
      '-y',
      '-v',
      'error',
      '-f',
      'lavfi',
      '-i',
      'testsrc=size=320x240:rate=30:duration=2',
      '-f',
      'lavfi',
      '-i',
      source,
      ...h264,
      '-c:a',
      'aac',
      '-ar',
      '48000',
      file,
    ]);
    const made = await copy(file);
    expect(made.tracks.map((track) => track.isOpposed)).toEqual([isOpposed]);
    const mono = execFileSync('ffmpeg', [
      '-v',
      'error',
      '-i',
      made.video,
      '-vn',
      '-ac',
      '1',
      '-ar',
      '8000',
      '-f',
      's16le',
      'pipe:1',
    ]);
    const peak = Array.from({ length: 8_000 }, (_, i) => Math.abs(mono.readInt16LE(i * 2))).reduce(
      (most, value) => Math.max(most, value),
      0,
    );
    expect(peak / 32_768).toBeGreaterThan(0.12);
  });

  it('takes silent footage', async () => {
    const made = await copy(footage.make('silent.mp4', 1, h264, { sound: false }));
    expect([made.hasSound, readFileSync(made.wave).length]).toEqual([false, 0]);
  });
});

describe('files that are no footage', () => {
  const refused = async (file: string): Promise<string> => {
    const error: unknown = await copy(file).then(
      () => null,
      (reason: unknown) => reason,
    );
    expect(error).toBeInstanceOf(FootageFault);
    return sayStored((error as Error).message);
  };

  it('says what is wrong with text, nothing, sound alone and a recording cut off', async () => {
    expect(await refused(footage.write('text.mp4', 'This is a shopping list.'))).toContain(
      'not a video',
    );
    expect(await refused(footage.write('empty.mp4', ''))).toContain('empty');
    expect(await refused(footage.make('sound.m4a', 1, ['-vn']))).toContain('no picture');
    const whole = footage.read(path.basename(footage.make('whole.mp4', 2, h264)));
    expect(
      await refused(footage.write('cut.mp4', whole.subarray(0, whole.length * 0.6))),
    ).toContain('cut off');
  });

  it('opens nothing a playlist or script points at', async () => {
    footage.make('secret.ts', 1, h264);
    const elsewhere = [
      '#EXTM3U',
      '#EXT-X-TARGETDURATION:1',
      '#EXTINF:1,',
      `file://${footage.at('secret.ts')}`,
      '#EXT-X-ENDLIST',
    ].join('\n');
    expect(await refused(footage.write('list.mp4', elsewhere))).toContain('not a video');
    expect(
      await refused(
        footage.write('list2.mp4', elsewhere.replace('file://', 'http://127.0.0.1:9/')),
      ),
    ).toContain('not a video');
    expect(
      await refused(
        footage.write('concat.mp4', `ffconcat version 1.0\nfile '${footage.at('secret.ts')}'\n`),
      ),
    ).toContain('not a video');
  });

  it('uses what there is of a truncated browser recording', async () => {
    footage.make('live.webm', 3, ['-c:v', 'libvpx', '-b:v', '500k', '-c:a', 'libopus']);
    const bytes = footage.read('live.webm');
    const made = await copy(footage.write('live-cut.webm', bytes.subarray(0, bytes.length / 2)));
    expect(made.frames).toBeGreaterThan(20);
    expect(made.frames).toBeLessThan(90);
  });

  it('says what could not be read of a file that was cut off, or is damaged inside', async () => {
    const whole = footage.read(
      path.basename(
        footage.make('sound-file.mp4', 6, [...h264, '-g', '30', '-movflags', '+faststart']),
      ),
    );
    expect((await copy(footage.write('whole.mp4', whole))).damage).toBeNull();
    const short = await copy(
      footage.write('short.mp4', whole.subarray(0, Math.floor(whole.length * 0.6))),
    );
    expect(sayStored(short.damage ?? '')).toMatch(
      /^Only [2-4](\.\d)? s of the 6 s this file says it has could be read\./,
    );
    expect(short.frames).toBeGreaterThan(60);
    const torn = Buffer.from(whole);
    for (let at = Math.floor(torn.length / 2); at < torn.length / 2 + 6_000; at += 1)
      torn[at] = (at * 7) % 256;
    expect(sayStored((await copy(footage.write('torn.mp4', torn))).damage ?? '')).toMatch(
      /damaged|could be read/,
    );
  });

  it('says that the picture ends before the sound', async () => {
    const file = footage.at('uneven-ends.webm');
    execFileSync('ffmpeg', [
      '-y',
      '-v',
      'error',
      '-f',
      'lavfi',
      '-i',
      'testsrc=size=320x240:rate=30:duration=2',
      '-f',
      'lavfi',
      '-i',
      'sine=duration=5',
      '-c:v',
      'libvpx',
      '-b:v',
      '500k',
      '-c:a',
      'libopus',
      file,
    ]);
    expect(sayStored((await copy(file)).damage ?? '')).toMatch(
      /^The picture ends (2\.9|3) s before the sound/,
    );
  });

  it('stops at once when cancelled', async () => {
    const stop = new AbortController();
    const running = copy(footage.make('long.mp4', 20, h264, { size: '1280x720' }), stop.signal);
    setTimeout(() => stop.abort(), 300);
    await expect(running).rejects.toBeInstanceOf(CancelledError);
  });
});
