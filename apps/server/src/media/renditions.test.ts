import { execFileSync } from 'node:child_process';
import { mkdtempSync, statSync } from 'node:fs';
import { afterAll, describe, expect, it } from 'vitest';
import { footageFolder } from '../testing/footage.ts';
import { makeWorkingCopy } from './ingest.ts';
import { picturePackets, probe } from './probe.ts';
import { makeRenditions } from './renditions.ts';

const footage = footageFolder();
afterAll(() => footage.remove());
const folder = () => mkdtempSync(footage.at('made-'));
const SECONDS = 4;

/** A working copy with a moving, noisy picture and a tone. */
async function workingCopy(size: string): Promise<{ video: string; bytes: number }> {
  const source = footage.at(`source-${size}.mp4`);
  execFileSync('ffmpeg', [
    ...[
      '-y',
      '-v',
      'error',
      '-f',
      'lavfi',
      '-i',
      `testsrc2=size=${size}:rate=30:duration=${SECONDS}`,
      '-f',
      'lavfi',
      '-i',
      `sine=frequency=440:sample_rate=48000:duration=${SECONDS}`,
    ],
    ...[
      '-vf',
      'noise=alls=30:allf=t',
      '-c:v',
      'libx264',
      '-preset',
      'ultrafast',
      '-b:v',
      '6M',
      '-pix_fmt',
      'yuv420p',
      '-c:a',
      'aac',
      source,
    ],
  ]);
  const { video } = await makeWorkingCopy(source, folder(), () => undefined);
  return { video, bytes: statSync(video).size };
}

/** Where a tone begins to sound, in seconds. */
const heardFrom = (file: string) => {
  const raw = execFileSync(
    'ffmpeg',
    ['-v', 'error', '-i', file, '-vn', '-ac', '1', '-f', 'f32le', 'pipe:1'],
    { maxBuffer: 64 * 1024 * 1024 },
  );
  return (
    new Float32Array(raw.buffer.slice(raw.byteOffset, raw.byteOffset + raw.byteLength)).findIndex(
      (value) => Math.abs(value) > 0.02,
    ) / 48_000
  );
};

describe('smaller versions of footage', () => {
  it('have the frames and the sound of the working copy, at no more than their rate', async () => {
    const { video, bytes } = await workingCopy('1280x720');
    const made = await makeRenditions(video, bytes, folder(), () => undefined);
    expect(made.map(({ lines }) => lines)).toEqual([360, 540, 720]);
    const frames = (await picturePackets(video)).map(({ seconds }) => seconds);
    for (const [i, most] of [400, 900, 1_800].entries()) {
      const { file, lines } = made[i] ?? { file: '', lines: 0 };
      const facts = await probe(file);
      expect([facts.video?.height, facts.video?.width]).toEqual([lines, (lines * 16) / 9]);
      const packets = await picturePackets(file);
      expect(packets).toHaveLength(frames.length);
      for (const [n, { seconds }] of packets.entries())
        expect(Math.abs(seconds - (frames[n] ?? NaN))).toBeLessThan(0.001);
      // A student jumps by blocks: a key frame each second.
      expect(packets.filter(({ key }) => key).map(({ seconds }) => Math.round(seconds))).toEqual([
        0, 1, 2, 3,
      ]);
      // The first second may take a little more.
      expect((statSync(file).size * 8) / (SECONDS * 1_000)).toBeLessThan(most * 1.25);
      expect(Math.abs(heardFrom(file) - heardFrom(video))).toBeLessThan(0.005);
    }
  });

  it('are not made where they would save nothing, and upright footage stays upright', async () => {
    const { video, bytes } = await workingCopy('360x640');
    const made = await makeRenditions(video, bytes, folder(), () => undefined);
    expect(made.map(({ lines }) => lines)).toEqual([360]);
    const { video: picture } = await probe(made[0]?.file ?? '');
    expect([picture?.width, picture?.height]).toEqual([360, 640]);
    const small = footage.at('small.mp4');
    execFileSync('ffmpeg', [
      '-y',
      '-v',
      'error',
      '-f',
      'lavfi',
      '-i',
      'color=c=gray:size=640x360:rate=30:duration=2',
      '-c:v',
      'libx264',
      '-pix_fmt',
      'yuv420p',
      small,
    ]);
    expect(await makeRenditions(small, statSync(small).size, folder(), () => undefined)).toEqual(
      [],
    );
  });
});
