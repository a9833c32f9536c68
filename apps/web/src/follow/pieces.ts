/**
 * Footage is fetched and kept in pieces of this many bytes: small enough that a picture shows soon
 * on a slow line.
 */
export const PIECE_BYTES = 128 * 1024;
/** Says on an answer that its first bytes were on the device already. */
export const KEPT_HEADER = 'x-kept';
/** So many pieces are on their way at once, that the line does not stand idle between two. */
const AHEAD = 2;
const TOTAL_HEADER = 'x-total';

/** Where a piece of footage is kept. */
export const pieceUrl = (url: string, index: number): string =>
  `${url}${url.includes('?') ? '&' : '?'}piece=${index}`;
export const pieceCount = (bytes: number): number => Math.ceil(bytes / PIECE_BYTES);

interface Piece {
  bytes: ArrayBuffer;
  /** Bytes of the whole file. */
  total: number;
  wasKept: boolean;
}

/** The server answered, but not with footage; the page gets its answer. */
class Refused extends Error {
  constructor(readonly answer: Response) {
    super('Refused');
  }
}

/** The bytes asked for; null for all of them, with no end where the rest is wanted. */
function wantedRange(header: string | null): { from: number; to: number } | null {
  const match = /^bytes=(\d+)-(\d*)$/.exec(header?.trim() ?? '');
  return match ? { from: Number(match[1]), to: match[2] ? Number(match[2]) : Infinity } : null;
}

/**
 * Answers for footage out of pieces that are kept on the device, and fetches and keeps those that
 * are missing, each of them once, whoever asks.
 */
export class PieceStore {
  readonly #coming = new Map<string, Promise<Piece>>();

  constructor(
    private readonly open: () => Promise<Pick<Cache, 'match' | 'put'>>,
    private readonly ask: (url: string, headers: Record<string, string>) => Promise<Response>,
  ) {}

  /** @throws when a piece is neither kept nor to be had */
  async answer(url: string, rangeHeader: string | null): Promise<Response> {
    const range = wantedRange(rangeHeader);
    const from = range?.from ?? 0;
    try {
      const firstIndex = Math.floor(from / PIECE_BYTES);
      const first = await this.#piece(url, firstIndex);
      const { total } = first;
      if (from >= total)
        return new Response(null, {
          status: 416,
          headers: { 'content-range': `bytes */${total}` },
        });
      // Who wants the rest takes it a piece at a time, and asks again: nothing hangs on this worker
      // for long.
      const to = Math.min(
        total - 1,
        range === null
          ? Infinity
          : range.to < Infinity
            ? range.to
            : (firstIndex + 1) * PIECE_BYTES - 1,
      );
      for (let ahead = 1; ahead < AHEAD; ahead += 1)
        this.#fetchAhead(url, firstIndex + ahead, total);
      const headers = {
        'content-type': 'video/mp4',
        'content-length': String(to - from + 1),
        'accept-ranges': 'bytes',
        ...(range && { 'content-range': `bytes ${from}-${to}/${total}` }),
        ...(first.wasKept && { [KEPT_HEADER]: '1' }),
      };
      return new Response(this.#bytes(url, first, firstIndex, from, to), {
        status: range ? 206 : 200,
        headers,
      });
    } catch (error) {
      // Several may have waited for the one answer.
      if (error instanceof Refused) return error.answer.clone();
      throw error;
    }
  }

  #fetchAhead(url: string, index: number, total: number): void {
    if (index * PIECE_BYTES < total) void this.#piece(url, index).catch(() => undefined);
  }

  #bytes(
    url: string,
    first: Piece,
    firstIndex: number,
    from: number,
    to: number,
  ): ReadableStream<Uint8Array> | Uint8Array<ArrayBuffer> {
    const part = ({ bytes }: Piece, index: number) =>
      new Uint8Array(bytes).subarray(
        Math.max(0, from - index * PIECE_BYTES),
        to + 1 - index * PIECE_BYTES,
      );
    const lastIndex = Math.floor(to / PIECE_BYTES);
    if (lastIndex === firstIndex) return part(first, firstIndex);
    let index = firstIndex;
    return new ReadableStream({
      pull: async (controller) => {
        controller.enqueue(
          part(index === firstIndex ? first : await this.#piece(url, index), index),
        );
        this.#fetchAhead(url, index + AHEAD, first.total);
        index += 1;
        if (index > lastIndex) controller.close();
      },
    });
  }

  #piece(url: string, index: number): Promise<Piece> {
    const key = pieceUrl(url, index);
    const known = this.#coming.get(key);
    if (known) return known;
    const made = this.#keptOrFetched(url, index, key).finally(() => this.#coming.delete(key));
    this.#coming.set(key, made);
    return made;
  }

  async #keptOrFetched(url: string, index: number, key: string): Promise<Piece> {
    const cache = await this.open();
    const kept = await cache.match(key);
    if (kept)
      return {
        bytes: await kept.arrayBuffer(),
        total: Number(kept.headers.get(TOTAL_HEADER)),
        wasKept: true,
      };
    const from = index * PIECE_BYTES;
    const answer = await this.ask(url, { range: `bytes=${from}-${from + PIECE_BYTES - 1}` });
    if (answer.status !== 206) throw new Refused(answer);
    const total = Number(/\/(\d+)$/.exec(answer.headers.get('content-range') ?? '')?.[1]);
    if (!Number.isFinite(total)) throw new Refused(answer);
    const bytes = await answer.arrayBuffer();
    // A full device plays all the same.
    await cache
      .put(key, new Response(bytes.slice(0), { headers: { [TOTAL_HEADER]: String(total) } }))
      .catch(() => undefined);
    return { bytes, total, wasKept: false };
  }
}
