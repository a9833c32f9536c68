import { Alert, Button, LinearProgress, Stack } from '@mui/material';
import type { Edit, EditOf } from '@zest/core/lesson';
import { followPath } from '@zest/core/signal';
import { teacherText } from '@zest/core/words';
import { useEffect, useRef, useState } from 'react';
import { messageOf } from '../../app/message.ts';
import { posesAt } from '../../workers/poses.ts';

/** Where the block's own time lies in its take. */
export interface FollowSource {
  url: string;
  startMs: number;
}

/** A look this often is enough for a view that moves calmly. */
const EVERY_MS = 400;

/** Looks for the performer in the stretch and lets the closer view follow. */
export function FollowPerformer({
  edit,
  source,
  onChange,
}: {
  edit: EditOf<'closer'>;
  source: FollowSource;
  onChange: (edit: Edit) => void;
}) {
  const [part, setPart] = useState<number | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const stop = useRef<AbortController>(null);
  useEffect(() => () => stop.current?.abort(), []);
  const follow = async () => {
    stop.current = new AbortController();
    setFault(null);
    setPart(0);
    const count = Math.max(2, Math.ceil((edit.toMs - edit.fromMs) / EVERY_MS));
    const moments = Array.from(
      { length: count },
      (_, i) => edit.fromMs + Math.round((i * (edit.toMs - edit.fromMs)) / count),
    );
    try {
      const looks = await posesAt(
        source.url,
        moments.map((ms) => source.startMs + ms),
        setPart,
        stop.current.signal,
      );
      const path = followPath(
        looks.map(({ pose }, i) => ({ atMs: moments[i] ?? 0, pose })),
        edit.zoom,
      );
      if (path.length === 0) setFault(teacherText('assemble.nobody-seen'));
      else onChange({ ...edit, path });
    } catch (error) {
      if (!(error instanceof DOMException && error.name === 'AbortError'))
        setFault(messageOf(error));
    } finally {
      setPart(null);
    }
  };
  return (
    <Stack spacing={1} sx={{ flex: '1 1 100%' }}>
      {part === null ? (
        <Button
          variant={edit.path.length > 0 ? 'contained' : 'outlined'}
          onClick={() => void follow()}
          sx={{ alignSelf: 'start' }}
        >
          {edit.path.length > 0
            ? teacherText('assemble.follows-performer')
            : teacherText('assemble.follow-performer')}
        </Button>
      ) : (
        <Stack direction="row" sx={{ gap: 1, alignItems: 'center' }}>
          <LinearProgress
            aria-label={teacherText('assemble.looking-performer')}
            variant="determinate"
            value={part * 100}
            sx={{ flex: 1 }}
          />
          <Button onClick={() => stop.current?.abort()}>{teacherText('assemble.stop')}</Button>
        </Stack>
      )}
      {edit.path.length > 0 && part === null && (
        <Button
          size="small"
          sx={{ alignSelf: 'start' }}
          onClick={() => onChange({ ...edit, path: [] })}
        >
          {teacherText('assemble.stand-still-again')}
        </Button>
      )}
      {fault && <Alert severity="error">{fault}</Alert>}
    </Stack>
  );
}
