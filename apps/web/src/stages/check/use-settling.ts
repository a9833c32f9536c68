import { findingWords, type Cause, type Finding } from '@zest/core/checks';
import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { edit } from '../../app/lesson-slice.ts';
import { useAppDispatch } from '../../app/store.ts';

export interface Settling {
  putRight: () => void;
  putAllRight: () => void;
  /** Asks why it is fine here: this one, or all of its cause. */
  askWhy: (of: 'one' | 'all') => void;
  askNoMore: () => void;
  asks: boolean;
  ignore: (word: string) => void;
  again: (finding: Finding) => void;
}

/** What a teacher does about a finding; all of a cause is one undo. */
export function useSettling(at: { cause: Cause; finding: Finding } | null): Settling {
  const dispatch = useAppDispatch();
  const [asking, setAsking] = useState<{ of: 'one' | 'all'; key: string } | null>(null);
  const isAsking = asking !== null && asking.key === at?.finding.key;
  const remedy = (findings: readonly Finding[]) =>
    at &&
    dispatch(
      edit(findingWords(at.finding).remedy ?? '', (draft) => {
        for (const one of findings) one.remedy?.change(draft);
      }),
    );
  return {
    putRight: () => at?.finding.remedy && remedy([at.finding]),
    putAllRight: () => at && remedy(at.cause.findings),
    askWhy: (of) => at && setAsking({ of, key: at.finding.key }),
    askNoMore: () => setAsking(null),
    asks: isAsking,
    ignore: (word) => {
      if (!at) return;
      const left = asking?.of === 'all' ? at.cause.findings : [at.finding];
      setAsking(null);
      dispatch(
        edit(teacherText('checking.ignore'), (draft) =>
          left.forEach(({ key }) => draft.waived.push({ key, word })),
        ),
      );
    },
    again: ({ key }) =>
      dispatch(
        edit(
          teacherText('checking.again'),
          (draft) => void (draft.waived = draft.waived.filter((one) => one.key !== key)),
        ),
      ),
  };
}
