import type { ThunkAction, UnknownAction } from '@reduxjs/toolkit';
import type { api } from './api.ts';
import type { LessonState } from './lesson-state.ts';

/** What the store holds; its own file, so that parts of the store can name the whole. */
export interface RootState {
  lesson: LessonState;
  api: ReturnType<typeof api.reducer>;
}
export type AppThunk<R = void> = ThunkAction<R, RootState, unknown, UnknownAction>;
