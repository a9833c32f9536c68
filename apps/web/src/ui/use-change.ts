import { changeBlock, type Block } from '@zest/core/lesson';
import { edit } from '../app/lesson-slice.ts';
import { useAppDispatch } from '../app/store.ts';

/** Changes the block of one kind; `merge` joins typing in one field to one step. */
export function useChange<B extends Block>(block: B) {
  const dispatch = useAppDispatch();
  return (label: string, change: (draft: B) => void, merge = true) => {
    dispatch(
      edit(
        label,
        changeBlock(block.id, (draft) => change(draft as B)),
        merge,
      ),
    );
  };
}
