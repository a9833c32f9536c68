import { LessonError, splitLesson } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { api, problemText } from '../../app/api.ts';
import { makeId } from '../../app/ids.ts';
import { edit } from '../../app/lesson-slice.ts';
import { useNotice } from '../../app/notice.tsx';
import { useAppDispatch } from '../../app/store.ts';
import { useLessonNow } from '../../app/use-lesson.ts';

/**
 * Splits the open lesson: the block and all after it become a lesson of their own. Undo here brings
 * them back; the new lesson stays.
 */
export function useSplit(): (blockId: string) => Promise<void> {
  const now = useLessonNow();
  const [makeLesson] = api.useMakeLessonMutation();
  const dispatch = useAppDispatch();
  const notice = useNotice();
  return async (blockId) => {
    try {
      const [first, second] = splitLesson(now(), blockId, makeId);
      const made = await makeLesson({ document: second });
      if (!made.data)
        return notice(problemText(made.error) ?? teacherText('plan.lesson-was-not-split'));
      dispatch(edit(teacherText('plan.split-lesson'), (draft) => void Object.assign(draft, first)));
      notice(teacherText('plan.shelf-now', { title: second.title }));
    } catch (error) {
      if (!(error instanceof LessonError)) throw error;
      notice(error.message);
    }
  };
}
