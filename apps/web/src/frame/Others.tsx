import { Chip, Stack, Tooltip } from '@mui/material';
import { findBlock } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useEffect, useState } from 'react';
import { useLocation, useSearchParams } from 'react-router';
import { useLatest } from '../ui/use-latest.ts';
import { hearWindows, heardOfRevision, type RevisionNews } from '../app/autosave.ts';
import { useNotice } from '../app/notice.tsx';
import { useAppDispatch } from '../app/store.ts';
import { teamApi } from '../app/team-api.ts';
import { useOpenLesson } from '../app/use-lesson.ts';

/** Often enough to be seen soon, seldom enough to cost nothing. */
const SAY_EVERY_MS = 5_000;

/**
 * Who else is in this lesson at the moment, and where; what they save is taken over or asked about.
 */
export function Others() {
  const { id, lesson } = useOpenLesson();
  const dispatch = useAppDispatch();
  const notice = useNotice();
  const [say] = teamApi.usePresenceMutation();
  const [others, setOthers] = useState<{ login: string; bench: string; blockId: string | null }[]>(
    [],
  );
  const { pathname } = useLocation();
  const [params] = useSearchParams();
  const bench = pathname.split('/').at(-1) ?? 'plan';
  const hear = useLatest(({ lessonId, revision }: RevisionNews) => {
    void dispatch(heardOfRevision(lessonId, revision)).then(
      (isTaken) => isTaken && notice(teacherText('frame.somebody-changed-lesson-you')),
    );
  });
  const tell = useLatest(async () => {
    const answer = await say({ lessonId: id, bench, blockId: params.get('block') });
    if (!answer.data) return;
    setOthers(answer.data.others);
    hear({ lessonId: id, revision: answer.data.revision });
  });
  useEffect(() => hearWindows(hear), [hear]);
  useEffect(() => {
    void tell();
    const timer = setInterval(() => void tell(), SAY_EVERY_MS);
    // A window in the background may have slept.
    const onSeen = () => document.visibilityState === 'visible' && void tell();
    document.addEventListener('visibilitychange', onSeen);
    return () => {
      clearInterval(timer);
      document.removeEventListener('visibilitychange', onSeen);
    };
  }, [tell, bench]);
  if (others.length === 0) return null;
  const placeOf = ({ bench: theirBench, blockId }: (typeof others)[number]) => {
    const block = blockId === null ? undefined : findBlock(lesson, blockId);
    return `${theirBench.charAt(0).toUpperCase()}${theirBench.slice(1)} bench${block ? `, ${block.title}` : ''}`;
  };
  return (
    <Stack direction="row" spacing={0.5} aria-label={teacherText('frame.also-here')}>
      {others.map((other) => (
        <Tooltip key={other.login} title={placeOf(other)}>
          <Chip
            size="small"
            color="secondary"
            label={teacherText('frame.here', { login: other.login })}
            tabIndex={0}
          />
        </Tooltip>
      ))}
    </Stack>
  );
}
