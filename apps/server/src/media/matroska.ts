/**
 * A Matroska stream of raw RGBA pictures, each with its own time: the cheapest exact way to hand
 * ffmpeg a picture that changes now and then. Only what that needs is written: one track, clusters
 * of one frame.
 */

/** Ticks of 0.1 ms. Times are floored to a tick, so that a picture is never late on its frame. */
const TICK_NS = 100_000;
export const TICKS_PER_SECOND = 1_000_000_000 / TICK_NS;

const UNKNOWN_SIZE = Buffer.from([0x01, 0xff, 0xff, 0xff, 0xff, 0xff, 0xff, 0xff]);

function sizeOf(length: number): Buffer {
  const size = Buffer.alloc(8);
  size.writeUInt32BE(0x01000000 + Math.floor(length / 2 ** 32), 0);
  size.writeUInt32BE(length >>> 0, 4);
  return size;
}

function element(id: number[], body: Buffer): Buffer {
  return Buffer.concat([Buffer.from(id), sizeOf(body.length), body]);
}

function unsigned(id: number[], value: number): Buffer {
  const body = Buffer.alloc(8);
  body.writeBigUInt64BE(BigInt(value));
  return element(id, body);
}

function text(id: number[], value: string): Buffer {
  return element(id, Buffer.from(value, 'ascii'));
}

/** The head of the stream, before the first picture. */
export function streamHead(width: number, height: number): Buffer {
  const ebml = element(
    [0x1a, 0x45, 0xdf, 0xa3],
    Buffer.concat([
      unsigned([0x42, 0x86], 1),
      unsigned([0x42, 0xf7], 1),
      unsigned([0x42, 0xf2], 4),
      unsigned([0x42, 0xf3], 8),
      text([0x42, 0x82], 'matroska'),
      unsigned([0x42, 0x87], 4),
      unsigned([0x42, 0x85], 2),
    ]),
  );
  const info = element([0x15, 0x49, 0xa9, 0x66], unsigned([0x2a, 0xd7, 0xb1], TICK_NS));
  const picture = element(
    [0xe0],
    Buffer.concat([
      unsigned([0xb0], width),
      unsigned([0xba], height),
      text([0x2e, 0xb5, 0x24], 'RGBA'),
    ]),
  );
  const track = element(
    [0xae],
    Buffer.concat([
      unsigned([0xd7], 1),
      unsigned([0x73, 0xc5], 1),
      unsigned([0x83], 1),
      text([0x86], 'V_UNCOMPRESSED'),
      picture,
    ]),
  );
  return Buffer.concat([
    ebml,
    Buffer.from([0x18, 0x53, 0x80, 0x67]),
    UNKNOWN_SIZE,
    info,
    element([0x16, 0x54, 0xae, 0x6b], track),
  ]);
}

/** One picture at `ticks`, to be followed by its RGBA bytes (`byteLength` of them). */
export function pictureHead(ticks: number, byteLength: number): Buffer {
  const block = Buffer.from([0x81, 0x00, 0x00, 0x80]);
  const simpleBlock = Buffer.concat([
    Buffer.from([0xa3]),
    sizeOf(block.length + byteLength),
    block,
  ]);
  const time = unsigned([0xe7], ticks);
  const clusterLength = time.length + simpleBlock.length + byteLength;
  return Buffer.concat([
    Buffer.from([0x1f, 0x43, 0xb6, 0x75]),
    sizeOf(clusterLength),
    time,
    simpleBlock,
  ]);
}
