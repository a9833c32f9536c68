import { IconButton, Tooltip } from '@mui/material';
import RedoIcon from '@mui/icons-material/Redo';
import UndoIcon from '@mui/icons-material/Undo';
import { stepText, type Step } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useEffect } from 'react';
import { redoEdit, undoEdit } from '../app/lesson-slice.ts';
import { useAppDispatch, useAppSelector } from '../app/store.ts';
import { isUndoOfLesson } from '../ui/draft.ts';
import { isTyping } from '../ui/typing.ts';

interface StepButtonProps {
  which: 'undo' | 'redo';
  /** What would be done; nothing: there is nothing. */
  what: string | undefined;
  onClick: () => void;
}

function StepButton({ which, what, onClick }: StepButtonProps) {
  const name = teacherText(`frame.${which}`);
  const Icon = which === 'undo' ? UndoIcon : RedoIcon;
  return (
    <Tooltip title={what ? `${name}: ${what}` : teacherText(`frame.no-${which}`)}>
      <span>
        <IconButton
          size="small"
          aria-label={what ? `${name}: ${what}` : name}
          disabled={!what}
          onClick={onClick}
        >
          <Icon />
        </IconButton>
      </span>
    </Tooltip>
  );
}

/** One step back or on, by button and by key. */
export function UndoButtons() {
  const edited = useAppSelector((state) => state.lesson.open?.edited);
  const dispatch = useAppDispatch();
  const said = (step: Step | undefined) => step && edited && stepText(step, edited.lesson);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const key = event.key.toLowerCase();
      if (!(event.ctrlKey || event.metaKey) || (key !== 'z' && key !== 'y')) return;
      // A field that is not of the lesson has the browser's own undo. The script editor keeps no
      // history.
      const isOfOther =
        event.target instanceof HTMLElement &&
        /^(INPUT|TEXTAREA)$/.test(event.target.tagName) &&
        isTyping(event.target);
      if (isOfOther && !isUndoOfLesson(event.target)) return;
      event.preventDefault();
      dispatch(event.shiftKey || key === 'y' ? redoEdit() : undoEdit());
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [dispatch]);
  return (
    <>
      <StepButton
        which="undo"
        what={said(edited?.past.at(-1))}
        onClick={() => dispatch(undoEdit())}
      />
      <StepButton
        which="redo"
        what={said(edited?.future.at(-1))}
        onClick={() => dispatch(redoEdit())}
      />
    </>
  );
}
