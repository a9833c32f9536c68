import { Chip, Stack, Tooltip } from '@mui/material';
import { findBlock } from '@zest/core/lesson';
import { useEffect, useState } from 'react';
import { useLocation, useSearchParams } from 'react-router';
import { useLatest } from '../ui/use-latest.ts';
import { teamApi } from './team-api.ts';
import { useOpenLesson } from './use-lesson.ts';

/** Often enough to be seen soon, seldom enough to cost nothing. */
const SAY_EVERY_MS = 8_000;

/** Who else is in this lesson at the moment, and where. */
export function Others() {
  const { id, lesson } = useOpenLesson();
  const [say] = teamApi.usePresenceMutation();
  const [others, setOthers] = useState<{ login: string; bench: string; blockId: string | null }[]>([]);
  const { pathname } = useLocation();
  const [params] = useSearchParams();
  const bench = pathname.split('/').at(-1) ?? 'plan';
  const tell = useLatest(async () => {
    const answer = await say({ lessonId: id, bench, blockId: params.get('block') });
    if (answer.data) setOthers(answer.data);
  });
  useEffect(() => {
    void tell();
    const timer = setInterval(() => void tell(), SAY_EVERY_MS);
    return () => clearInterval(timer);
  }, [tell, bench]);
  if (others.length === 0) return null;
  const placeOf = ({ bench: own, blockId }: (typeof others)[number]) => {
    const block = blockId === null ? undefined : findBlock(lesson, blockId);
    return `${own.charAt(0).toUpperCase()}${own.slice(1)} bench${block ? `, ${block.title}` : ''}`;
  };
  return (
    <Stack direction="row" spacing={0.5} aria-label="Also here">
      {others.map((other) => (
        <Tooltip key={other.login} title={placeOf(other)}>
          <Chip size="small" color="secondary" label={`${other.login} is here`} tabIndex={0} />
        </Tooltip>
      ))}
    </Stack>
  );
}
