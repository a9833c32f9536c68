import { problemSchema } from '@zest/contract';
import { putTogether, readLesson, type Chosen, type Lesson } from '@zest/core/lesson';
import { createListenerMiddleware, isAnyOf } from '@reduxjs/toolkit';
import { z } from 'zod';
import { teacherText } from '@zest/core/words';
import { api, problemText } from './api.ts';
import { edit, edited, opened, saveChanged, stored } from './lesson-slice.ts';
import type { LessonState } from './lesson-state.ts';
import type { AppThunk, RootState } from './state.ts';

const otherWindows =
  typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('zest-revisions');
const revisionSchema = z.object({ lessonId: z.string(), revision: z.int() });
export type RevisionNews = z.infer<typeof revisionSchema>;
const tellWindows = (news: RevisionNews) => otherWindows?.postMessage(news);

/** Hears from this browser's other windows what they saved; gives what ends it. */
export function hearWindows(hear: (news: RevisionNews) => void): () => void {
  const onMessage = (event: MessageEvent<unknown>) => hear(revisionSchema.parse(event.data));
  otherWindows?.addEventListener('message', onMessage);
  return () => otherWindows?.removeEventListener('message', onMessage);
}

/** Waits for a pause in typing before saving. */
const PAUSE_MS = 700;
/** The browser keeps it sooner: that costs a little for a long lesson, so not at every key. */
const DRAFT_PAUSE_MS = 150;
const RETRY_MS = 4_000;

const draftKey = (lessonId: string) => `zest-draft-${lessonId}`;
const draftSchema = z.object({ revision: z.number(), lesson: z.unknown() });

/**
 * What this browser holds unsaved of a lesson, from a window that was closed before it could save.
 */
export function readDraft(lessonId: string): { revision: number; lesson: Lesson } | null {
  try {
    const draft = draftSchema.parse(JSON.parse(localStorage.getItem(draftKey(lessonId)) ?? 'null'));
    return { revision: draft.revision, lesson: readLesson(draft.lesson) };
  } catch {
    return null;
  }
}

function keepDraft(lessonId: string, revision: number, lesson: Lesson): void {
  try {
    localStorage.setItem(draftKey(lessonId), JSON.stringify({ revision, lesson }));
  } catch {
    // The browser's store is full; the server still gets every save.
  }
}

/**
 * Keeps what is not on the server yet in this browser; also when the window is closed in
 * mid-typing.
 */
export function keepOpen({ open }: LessonState): void {
  if (open && open.edited.lesson !== open.stored)
    keepDraft(open.id, open.revision, open.edited.lesson);
}

export function dropDraft(lessonId: string): void {
  localStorage.removeItem(draftKey(lessonId));
}

/** The save under way of a lesson: it goes on until nothing has changed meanwhile. */
const underWay = new Map<string, Promise<void>>();

/**
 * Saves the open lesson if it differs from the server's; resolves once the server has all of it, or
 * a save has failed. Refused as stale, the window asks which to keep.
 */
export const saveNow = (): AppThunk<Promise<void>> => async (dispatch, getState) => {
  const id = getState().lesson.open?.id;
  if (id === undefined) return;
  const saving = underWay.get(id) ?? dispatch(save()).finally(() => underWay.delete(id));
  underWay.set(id, saving);
  await saving;
};

/**
 * Saves before the server makes something of the lesson; gives why it does not have the newest
 * state, null when it does.
 */
export const saveFirst = (): AppThunk<Promise<string | null>> => async (dispatch, getState) => {
  await dispatch(saveNow());
  const { open } = getState().lesson;
  if (!open || open.edited.lesson === open.stored) return null;
  return open.save.kind === 'stale'
    ? teacherText('app.changed-elsewhere')
    : teacherText('app.changes-not-saved');
};

const save = (): AppThunk<Promise<void>> => async (dispatch, getState) => {
  const { open } = getState().lesson;
  if (!open || open.save.kind === 'stale') return;
  const { lesson } = open.edited;
  if (lesson === open.stored) {
    dispatch(saveChanged({ kind: 'saved' }));
    dropDraft(open.id);
    return;
  }
  dispatch(saveChanged({ kind: 'saving' }));
  const result = await dispatch(
    api.endpoints.saveLesson.initiate({ lessonId: open.id, baseRevision: open.revision, lesson }),
  );
  if (getState().lesson.open?.id !== open.id) return;
  if (result.data) {
    dispatch(stored({ id: open.id, revision: result.data.revision, lesson }));
    tellWindows({ lessonId: open.id, revision: result.data.revision });
    const now = getState().lesson.open;
    if (now?.edited.lesson === lesson) dropDraft(open.id);
    else {
      dispatch(saveChanged({ kind: 'unsaved' }));
      await dispatch(save());
    }
    return;
  }
  const problem = problemSchema.safeParse(result.error);
  if (problem.success && problem.data.code === 'stale') {
    dispatch(saveChanged({ kind: 'stale', revision: problem.data.revision ?? open.revision }));
  } else {
    dispatch(
      saveChanged({
        kind: 'failed',
        message: problemText(result.error) ?? teacherText('app.not-saved'),
      }),
    );
  }
};

/** Keeps this window's version: it becomes the newest revision, on top of the other one. */
export const keepMine = (): AppThunk<Promise<void>> => async (dispatch, getState) => {
  const { open } = getState().lesson;
  if (!open) return;
  const newest = await dispatch(
    api.endpoints.lesson.initiate(open.id, { forceRefetch: true, subscribe: false }),
  );
  if (!newest.data) {
    dispatch(
      saveChanged({
        kind: 'failed',
        message: problemText(newest.error) ?? teacherText('app.not-saved'),
      }),
    );
    return;
  }
  dispatch(stored({ id: open.id, revision: newest.data.revision, lesson: newest.data.lesson }));
  await dispatch(saveNow());
};

/**
 * Takes the other window's version; this window's is put into the history first, so that nothing is
 * lost.
 */
export const takeTheirs = (): AppThunk<Promise<void>> => async (dispatch, getState) => {
  const { open } = getState().lesson;
  if (!open) return;
  const theirs = await dispatch(
    api.endpoints.lesson.initiate(open.id, { forceRefetch: true, subscribe: false }),
  );
  if (!theirs.data) return;
  const mine = await dispatch(
    api.endpoints.saveLesson.initiate({
      lessonId: open.id,
      baseRevision: theirs.data.revision,
      lesson: open.edited.lesson,
    }),
  );
  if (!mine.data) return;
  const back = await dispatch(
    api.endpoints.saveLesson.initiate({
      lessonId: open.id,
      baseRevision: mine.data.revision,
      lesson: theirs.data.lesson,
    }),
  );
  if (!back.data) return;
  dropDraft(open.id);
  dispatch(opened({ id: open.id, revision: back.data.revision, lesson: theirs.data.lesson }));
};

/** Puts this window's and another's version together, on top of the other one. */
export const keepBoth =
  (
    theirs: { lesson: Lesson; revision: number },
    chosen: ReadonlyMap<string | null, Chosen>,
  ): AppThunk<Promise<void>> =>
  async (dispatch, getState) => {
    const { open } = getState().lesson;
    if (!open) return;
    const together = putTogether(open.stored, open.edited.lesson, theirs.lesson, chosen);
    dispatch(stored({ id: open.id, revision: theirs.revision, lesson: theirs.lesson }));
    dispatch(
      edit(
        teacherText('app.both-versions-together'),
        (draft) => void Object.assign(draft, together),
      ),
    );
    await dispatch(saveNow());
  };

/**
 * Hears that the server has a newer revision. A window with nothing unsaved takes it over, which is
 * told by `true`; one with changes of its own asks.
 */
export const heardOfRevision =
  (lessonId: string, revision: number): AppThunk<Promise<boolean>> =>
  async (dispatch, getState) => {
    const isNews = () => {
      const { open } = getState().lesson;
      // While this window saves, the newer revision may be its own.
      return (
        open?.id === lessonId &&
        revision > open.revision &&
        open.save.kind !== 'saving' &&
        open.save.kind !== 'stale'
      );
    };
    const isUntouched = () => {
      const { open } = getState().lesson;
      return open !== null && open.edited.lesson === open.stored;
    };
    if (!isNews()) return false;
    const newest = isUntouched()
      ? await dispatch(
          api.endpoints.lesson.initiate(lessonId, { forceRefetch: true, subscribe: false }),
        )
      : null;
    if (!isNews()) return false;
    if (!isUntouched()) {
      dispatch(saveChanged({ kind: 'stale', revision }));
      return false;
    }
    if (!newest?.data) return false;
    dispatch(opened({ id: lessonId, revision: newest.data.revision, lesson: newest.data.lesson }));
    return true;
  };

export const autosave = createListenerMiddleware();

autosave.startListening({
  actionCreator: edited,
  effect: async (_action, listener) => {
    listener.cancelActiveListeners();
    await listener.delay(DRAFT_PAUSE_MS);
    keepOpen((listener.getState() as RootState).lesson);
    await listener.delay(PAUSE_MS - DRAFT_PAUSE_MS);
    listener.dispatch(saveNow() as never);
  },
});

autosave.startListening({
  matcher: isAnyOf(saveChanged),
  effect: async (action, listener) => {
    if (!saveChanged.match(action) || action.payload.kind !== 'failed') return;
    listener.cancelActiveListeners();
    await listener.delay(RETRY_MS);
    listener.dispatch(saveNow() as never);
  },
});
