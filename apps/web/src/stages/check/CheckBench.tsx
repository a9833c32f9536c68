import { Alert, Box, Button, LinearProgress, Stack, Typography } from '@mui/material';
import { routes, urlOf } from '@zest/contract';
import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { runningColours } from '../../app/theme.ts';
import { saveFirst } from '../../app/autosave.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useOpenLesson } from '../../app/use-lesson.ts';
import { useSettled } from '../../frame/checked.ts';
import { Panes } from '../../frame/Panes.tsx';
import { fetchFile } from '../../ui/save-file.ts';
import { useKeys } from '../../ui/use-keys.ts';
import { benchPath } from './bench-path.ts';
import { FindingList, IgnoredList } from './FindingList.tsx';
import { FindingView } from './FindingView.tsx';
import { useCheck } from './use-check.ts';
import { useSettling } from './use-settling.ts';
import { WatchStatus } from './WatchStatus.tsx';

/** How much is settled, and the report for paper. */
function Heading({ open }: { open: number | null }) {
  const { id } = useOpenLesson();
  const dispatch = useAppDispatch();
  const { settled, of } = useSettled(id);
  const [problem, setProblem] = useState<string | null>(null);
  const print = async () => {
    setProblem(null);
    const unsaved = await dispatch(saveFirst());
    setProblem(
      unsaved ??
        (await fetchFile('check.pdf', urlOf(routes.print, { lessonId: id, print: 'check' }))),
    );
  };
  return (
    <Stack spacing={0.75}>
      <Stack direction="row" sx={{ alignItems: 'center', gap: 2 }}>
        <Typography variant="h2" component="p" sx={{ flex: 1 }} data-testid="check-words">
          {open === null
            ? teacherText('checking.looking')
            : open === 0
              ? teacherText('checking.nothing')
              : teacherText('checking.settled', { settled, of })}
        </Typography>
        <Button variant="outlined" onClick={() => void print()}>
          {teacherText('checking.report')}
        </Button>
      </Stack>
      {of > 0 && (
        <LinearProgress
          // Nothing is under way: it tells how much is done.
          role="meter"
          variant="determinate"
          value={(100 * settled) / of}
          aria-label={teacherText('checking.settled', { settled, of })}
        />
      )}
      {problem && <Alert severity="error">{problem}</Alert>}
    </Stack>
  );
}

/** What a student would suffer from, where it is seen, and what to do about it. */
export function CheckBench() {
  const { id } = useOpenLesson();
  const navigate = useNavigate();
  const checked = useCheck();
  const at = checked?.at ?? null;
  const settling = useSettling(at);
  const [leaf, setLeaf] = useState('findings');
  useKeys({
    PageDown: () => checked?.step(1),
    PageUp: () => checked?.step(-1),
    p: settling.putRight,
    i: () => settling.askWhy('one'),
    g: () => at && void navigate(benchPath(id, at.finding)),
  });
  return (
    <Panes
      id="check"
      leaf={{ shown: leaf, onTurn: setLeaf }}
      panes={[
        {
          ...{ id: 'findings', name: teacherText('pane.findings'), part: 42, leastPx: 340 },
          heading: <Heading open={checked?.causes.length ?? null} />,
          content: (
            <Stack spacing={2}>
              <WatchStatus />
              {checked && (
                <Box sx={runningColours}>
                  <FindingList
                    onStep={checked.step}
                    causes={checked.causes}
                    chosen={at?.cause ?? null}
                    onChoose={({ findings: [{ key }] }) => {
                      checked.choose(key);
                      setLeaf('found');
                    }}
                  />
                  <IgnoredList findings={checked.ignored} onAgain={settling.again} />
                </Box>
              )}
            </Stack>
          ),
        },
        {
          ...{ id: 'found', name: teacherText('pane.finding'), part: 58, leastPx: 420 },
          content:
            checked && at ? (
              <FindingView lessonId={id} checked={checked} at={at} settling={settling} />
            ) : (
              checked && (
                <Stack spacing={2} sx={{ alignItems: 'start' }}>
                  <Typography sx={{ fontSize: '1.15rem' }}>
                    {teacherText('checking.all-holds')}
                  </Typography>
                  <Button variant="contained" component={Link} to={`/lessons/${id}/share`}>
                    {teacherText('checking.go', { bench: teacherText('bench.share') })}
                  </Button>
                </Stack>
              )
            ),
        },
      ]}
    />
  );
}
