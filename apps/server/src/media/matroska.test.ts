import { execFileSync } from 'node:child_process';
import { describe, expect, it } from 'vitest';
import { pictureHead, streamHead, TICKS_PER_SECOND } from './matroska.ts';

describe('a stream of pictures', () => {
  it('is read by ffmpeg with its own times, sizes and straight alpha', () => {
    const frames = [0, 1, 7, 40].map((frame, i) => ({
      ticks: Math.floor((frame * TICKS_PER_SECOND) / 30),
      pixels: Buffer.alloc(6 * 4 * 4, 50 + i),
    }));
    const stream = Buffer.concat([
      streamHead(6, 4),
      ...frames.flatMap(({ ticks, pixels }) => [pictureHead(ticks, pixels.length), pixels]),
    ]);
    const facts = JSON.parse(
      execFileSync(
        'ffprobe',
        [
          '-v',
          'error',
          '-f',
          'matroska',
          '-show_streams',
          '-show_packets',
          '-of',
          'json',
          'pipe:0',
        ],
        { input: stream, encoding: 'utf8' },
      ),
    ) as { streams: object[]; packets: { pts_time: string }[] };
    expect(facts.streams).toMatchObject([
      { codec_name: 'rawvideo', pix_fmt: 'rgba', width: 6, height: 4 },
    ]);
    expect(facts.packets.map((packet) => Number(packet.pts_time))).toEqual(
      [0, 0.033, 0.233, 1.333].map((s) => expect.closeTo(s, 3) as number),
    );
    const pixels = execFileSync(
      'ffmpeg',
      ['-v', 'error', '-f', 'matroska', '-i', 'pipe:0', '-vsync', '0', '-f', 'rawvideo', 'pipe:1'],
      { input: stream },
    );
    expect(pixels.equals(Buffer.concat(frames.map((frame) => frame.pixels)))).toBe(true);
  });
});
