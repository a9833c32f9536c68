import {
  applyEdit,
  beginEditing,
  redo,
  undo,
  type EditedLesson,
  type Lesson,
  type LessonEdit,
} from '@zest/core/lesson';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { LessonState, SaveState } from './lesson-state.ts';
import { intentions } from '../ui/intention.ts';
import type { AppThunk } from './state.ts';

const initialState: LessonState = { open: null };

const slice = createSlice({
  name: 'lesson',
  initialState,
  reducers: {
    opened(state, { payload }: PayloadAction<{ id: string; revision: number; lesson: Lesson }>) {
      state.open = {
        id: payload.id,
        revision: payload.revision,
        edited: beginEditing(payload.lesson),
        stored: payload.lesson,
        save: { kind: 'saved' },
      };
    },
    closed(state, { payload }: PayloadAction<{ id: string }>) {
      if (state.open?.id === payload.id) state.open = null;
    },
    edited(state, { payload }: PayloadAction<EditedLesson>) {
      if (!state.open) return;
      state.open.edited = payload;
      if (state.open.save.kind !== 'stale' && state.open.save.kind !== 'saving')
        state.open.save = { kind: 'unsaved' };
    },
    saveChanged(state, { payload }: PayloadAction<SaveState>) {
      if (state.open) state.open.save = payload;
    },
    stored(state, { payload }: PayloadAction<{ id: string; revision: number; lesson: Lesson }>) {
      if (state.open?.id !== payload.id) return;
      state.open.revision = payload.revision;
      state.open.stored = payload.lesson;
      state.open.save = { kind: 'saved' };
    },
  },
});

export const lessonReducer = slice.reducer;
export const { opened, closed, edited, saveChanged, stored } = slice.actions;

const change =
  (next: (state: EditedLesson) => EditedLesson): AppThunk =>
  (dispatch, getState) => {
    const { open } = getState().lesson;
    if (!open) return;
    const changed = next(open.edited);
    if (changed !== open.edited) dispatch(edited(changed));
  };

/**
 * Changes the open lesson as one undoable step; with `isTyped`, changes of one intention of the
 * hand are one step.
 */
export const edit = (label: string, recipe: LessonEdit, isTyped = false) =>
  change((state) => applyEdit(state, label, recipe, isTyped ? intentions.current() : null));

const steps =
  (step: (state: EditedLesson) => EditedLesson): AppThunk =>
  (dispatch) => {
    intentions.next();
    dispatch(change(step));
  };
export const undoEdit = () => steps(undo);
export const redoEdit = () => steps(redo);
