import type { Take } from '@zest/contract';
import { changeBlock, type Block } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { api, problemText } from '../../app/api.ts';
import { edit } from '../../app/lesson-slice.ts';
import type { AppThunk } from '../../app/state.ts';
import { sendFile, uploadFault } from '../../record/upload.ts';

/**
 * An upload of this window; kept outside the pages so that it goes on while other benches are open.
 */
export interface RunningUpload {
  part: number;
  fault: string | null;
}

type Listener = () => void;
let running: ReadonlyMap<string, RunningUpload> = new Map();
const listeners = new Set<Listener>();

function note(takeId: string, state: RunningUpload | null): void {
  const next = new Map(running);
  if (state) next.set(takeId, state);
  else next.delete(takeId);
  running = next;
  for (const listener of listeners) listener();
}

export const subscribeUploads = (listener: Listener) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};
export const runningUploads = () => running;

/** Makes a take the block's footage; a block without footage takes its first take by itself. */
export const chooseTake =
  (block: Block, takeId: string, startsAtMs: number | null): AppThunk =>
  (dispatch) => {
    dispatch(
      edit(
        teacherText('film.take', { n: block.title || teacherText('untitled') }),
        changeBlock(block.id, (draft) => void (draft.footage = { takeId, startsAtMs })),
      ),
    );
  };

/** The block has no footage any more. */
export const leaveTake =
  (block: Block): AppThunk =>
  (dispatch) => {
    dispatch(
      edit(
        teacherText('film.take', { n: block.title || teacherText('untitled') }),
        changeBlock(block.id, (draft) => void (draft.footage = null)),
      ),
    );
  };

/** Whether the block has no footage, or such as cannot be used. */
export const needsFootage =
  (lessonId: string, { footage }: Block): AppThunk<boolean> =>
  (_dispatch, getState) =>
    footage === null ||
    api.endpoints.takes
      .select(lessonId)(getState())
      .data?.find(({ id }) => id === footage.takeId)?.state === 'failed';

const VIDEO_NAME = /\.(mp4|m4v|mov|webm|mkv|3gp|avi|ts|mts|m2ts|mpe?g)$/i;

/** What can be told of a file before it is sent; null when it may be sent. */
export function fileFault(file: File): string | null {
  if (file.size === 0) return teacherText('film.empty-copy-from-camera', { name: file.name });
  if (!file.type.startsWith('video/') && !VIDEO_NAME.test(file.name)) {
    return teacherText('film.not-video-choose-mp4', { name: file.name });
  }
  return null;
}

async function send(takeId: string, file: Blob, resume: boolean): Promise<void> {
  note(takeId, { part: 0, fault: null });
  try {
    await sendFile(takeId, file, (part) => note(takeId, { part, fault: null }), resume).done;
    note(takeId, null);
  } catch (error) {
    note(takeId, { part: running.get(takeId)?.part ?? 0, fault: uploadFault(error) });
  }
}

/**
 * Begins a take and sends its file.
 * @returns the take's id, or the fault that kept it from starting
 */
const sendAs =
  (
    lessonId: string,
    blockId: string,
    file: File,
    source: 'upload' | 'picture' | 'music' = 'upload',
  ): AppThunk<Promise<{ takeId: string } | { fault: string }>> =>
  async (dispatch) => {
    const fault = source === 'upload' ? fileFault(file) : null;
    if (fault) return { fault };
    const made = await dispatch(
      api.endpoints.makeTake.initiate({
        lessonId,
        blockId,
        name: file.name.slice(0, 200) || teacherText('film.upload'),
        source,
      }),
    );
    if (!made.data)
      return { fault: problemText(made.error) ?? teacherText('film.upload-could-not-begun') };
    const takeId = made.data.id;
    void send(takeId, file, false).then(() => dispatch(api.util.invalidateTags(['Takes'])));
    return { takeId };
  };

/**
 * Sends a file as a new take of the block.
 * @returns the fault that kept it from starting, or null
 */
export const uploadTake =
  (lessonId: string, block: Block, file: File): AppThunk<Promise<string | null>> =>
  async (dispatch) => {
    const begun = await dispatch(sendAs(lessonId, block.id, file));
    if ('fault' in begun) return begun.fault;
    if (dispatch(needsFootage(lessonId, block))) dispatch(chooseTake(block, begun.takeId, null));
    return null;
  };

/**
 * Sends a file whose block is still to be found.
 * @returns the fault that kept it from starting, or null
 */
export const importTake =
  (lessonId: string, file: File): AppThunk<Promise<string | null>> =>
  async (dispatch) => {
    const begun = await dispatch(sendAs(lessonId, '', file));
    return 'fault' in begun ? begun.fault : null;
  };

/** Goes on with an upload that broke off; the same file has to be chosen again. */
export const continueUpload =
  (take: Take, file: File): AppThunk =>
  (dispatch) => {
    void send(take.id, file, true).then(() => dispatch(api.util.invalidateTags(['Takes'])));
  };

/** The longer side of a still picture as it is sent. */
const STILL_SIDE = 1920;

/**
 * A still picture upright and no larger than it is shown; what else a camera wrote into its file,
 * such as the place, stays behind.
 */
async function plainPicture(file: File): Promise<File | null> {
  const bitmap = await createImageBitmap(file).catch(() => null);
  if (!bitmap) return null;
  const scale = Math.min(1, STILL_SIDE / Math.max(bitmap.width, bitmap.height));
  const canvas = new OffscreenCanvas(
    Math.max(16, Math.round(bitmap.width * scale)),
    Math.max(16, Math.round(bitmap.height * scale)),
  );
  const ctx = canvas.getContext('2d');
  if (!ctx) return null;
  // Where a picture is clear, the ground of the cards shows.
  ctx.fillStyle = '#f6efe4';
  ctx.fillRect(0, 0, canvas.width, canvas.height);
  ctx.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  return new File([await canvas.convertToBlob({ type: 'image/png' })], file.name);
}

/** Sends a still picture of a block. @returns its id, or what is wrong and what to do */
export const uploadPicture =
  (
    lessonId: string,
    blockId: string,
    file: File,
  ): AppThunk<Promise<{ takeId: string } | { fault: string }>> =>
  async (dispatch) => {
    const picture = await plainPicture(file);
    if (!picture)
      return {
        fault: teacherText('film.not-picture-can-read', { name: file.name }),
      };
    return dispatch(sendAs(lessonId, blockId, picture, 'picture'));
  };

const MUSIC_NAME = /\.(mp3|m4a|aac|wav|ogg|oga|opus|flac)$/i;

/** Sends a piece of music of the lesson. @returns its id, or what is wrong and what to do */
export const uploadMusic =
  (lessonId: string, file: File): AppThunk<Promise<{ takeId: string } | { fault: string }>> =>
  async (dispatch) => {
    if (file.size === 0 || (!file.type.startsWith('audio/') && !MUSIC_NAME.test(file.name)))
      return {
        fault: teacherText('film.not-sound-file-choose', { name: file.name }),
      };
    return dispatch(sendAs(lessonId, '', file, 'music'));
  };
