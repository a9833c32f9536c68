import { configureStore } from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
import { api } from './api.ts';
import { autosave } from './autosave.ts';
import { lessonReducer } from './lesson-slice.ts';
import type { RootState } from './state.ts';

export const store = configureStore({
  reducer: { lesson: lessonReducer, [api.reducerPath]: api.reducer },
  // The lesson may be large and is never changed in place; walking it on every action would only
  // cost time.
  middleware: (standard) =>
    standard({ serializableCheck: false, immutableCheck: false })
      .prepend(autosave.middleware)
      .concat(api.middleware),
});

export type AppDispatch = typeof store.dispatch;
export const useAppDispatch = useDispatch.withTypes<AppDispatch>();
export const useAppSelector = useSelector.withTypes<RootState>();
