import { setTimeout as sleep } from 'node:timers/promises';
import { ERRORS, type Lock, type Locker, type RequestRelease } from '@tus/server';
import { nanoid } from 'nanoid';
import type { Hub } from '../hub/hub.ts';

const BOOK = 'upload locks';
/** Whoever holds a lock says so this often; one of a server that died is free after so long. */
const BEAT_MS = 5_000;
const HELD_MS = 15_000;
const ASK_EVERY_MS = 50;
const MOST_WAIT_MS = 30_000;

class UploadLock implements Lock {
  #release: () => Promise<void> = () => Promise.resolve();

  constructor(
    private readonly hub: Hub,
    private readonly id: string,
  ) {}

  async lock(signal: AbortSignal, requestRelease: RequestRelease): Promise<void> {
    const { hub, id } = this;
    const mine = nanoid();
    const channel = `upload:${id}`;
    const untilMs = Date.now() + MOST_WAIT_MS;
    while (!(await hub.keepNew(BOOK, id, mine, HELD_MS))) {
      if (signal.aborted || Date.now() > untilMs) throw ERRORS.ERR_LOCK_TIMEOUT;
      // A connection that broke off may not know it yet: the upload goes on by a new one.
      await hub.tell(channel, null);
      await sleep(ASK_EVERY_MS);
    }
    const deaf = await hub.hear(channel, () => void requestRelease());
    const beat = setInterval(
      () => void hub.keep(BOOK, id, mine, HELD_MS).catch(() => undefined),
      BEAT_MS,
    );
    this.#release = async () => {
      clearInterval(beat);
      deaf();
      await hub.forget(BOOK, id);
    };
  }

  unlock(): Promise<void> {
    return this.#release();
  }
}

/** One request at a time writes to an upload, on whichever server. */
export const uploadLocks = (hub: Hub): Locker => ({ newLock: (id) => new UploadLock(hub, id) });
