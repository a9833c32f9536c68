import { Alert, Box, Button, Paper, Stack, TextField, Typography } from '@mui/material';
import { checkLesson, findingWords, harmName, harms, type Finding } from '@zest/core/checks';
import { LIMITS } from '@zest/core/lesson';
import { clockText } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { useEffect, useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { routes, urlOf } from '@zest/contract';
import { makeId } from '../../app/ids.ts';
import { edit } from '../../app/lesson-slice.ts';
import { saveFirst } from '../../app/autosave.ts';
import { useAppDispatch } from '../../app/store.ts';
import { fetchFile } from '../../ui/save-file.ts';
import { useTextMeasure } from '../../ui/use-text-measure.ts';
import { sayFindings } from '../../frame/checked.ts';
import { OnePane } from '../../frame/Panes.tsx';
import { WatchStatus } from './WatchStatus.tsx';
import { useAssembly, useOpenLesson, useReadyTakes } from '../../app/use-lesson.ts';

const benchNames = {
  plan: 'Plan',
  script: 'Script',
  film: 'Film',
  assemble: 'Assemble',
  share: 'Share',
} as const;

/** The teacher's word for leaving a finding so. */
function Waive({ finding, onWaive }: { finding: Finding; onWaive: (word: string) => void }) {
  const [word, setWord] = useState<string | null>(null);
  if (word === null) return <Button onClick={() => setWord('')}>Ignore</Button>;
  return (
    <Stack
      direction="row"
      component="form"
      sx={{ gap: 1, alignItems: 'center' }}
      onSubmit={(event) => (event.preventDefault(), word.trim() !== '' && onWaive(word.trim()))}
    >
      <TextField
        autoFocus
        label="Why it’s fine here"
        value={word}
        slotProps={{
          htmlInput: { maxLength: LIMITS.line, 'aria-description': findingWords(finding).say },
        }}
        onChange={(event) => setWord(event.target.value)}
        sx={{ width: 260 }}
      />
      <Button type="submit" variant="outlined" disabled={word.trim() === ''}>
        Save reason
      </Button>
      <Button onClick={() => setWord(null)}>Cancel</Button>
    </Stack>
  );
}

function FindingRow({ finding }: { finding: Finding }) {
  const { lessonId } = useParams();
  const dispatch = useAppDispatch();
  const { key, bench, blockId, atMs, remedy, waived } = finding;
  const { say, why, remedy: does } = findingWords(finding);
  const there = `/lessons/${lessonId ?? ''}/${bench}${blockId ? `?block=${blockId}` : ''}`;
  return (
    <Box
      component="li"
      data-testid="finding"
      sx={{ py: 1.5, borderTop: 1, borderColor: 'divider', listStyle: 'none' }}
    >
      <Typography sx={{ fontWeight: 650, fontSize: '1.1rem' }}>
        {say}
        {atMs !== null && (
          <Box component="span" sx={{ color: 'text.secondary', fontWeight: 400 }}>
            {' '}
            at {clockText(atMs)}
          </Box>
        )}
      </Typography>
      <Typography color="text.secondary">{why}</Typography>
      <Stack
        direction="row"
        useFlexGap
        sx={{ gap: 1, mt: 0.75, flexWrap: 'wrap', alignItems: 'center' }}
      >
        {waived === null && remedy && (
          <Button variant="contained" onClick={() => dispatch(edit(does ?? '', remedy.change))}>
            {does}
          </Button>
        )}
        {waived === null && (
          <Button variant="outlined" component={Link} to={there}>
            Go there ({benchNames[bench]})
          </Button>
        )}
        {waived === null ? (
          <Waive
            finding={finding}
            onWaive={(word) =>
              dispatch(edit('Leave a finding so', (draft) => void draft.waived.push({ key, word })))
            }
          />
        ) : (
          <>
            <Typography>Ignored: “{waived}”</Typography>
            <Button
              onClick={() =>
                dispatch(
                  edit(
                    'Look at it again',
                    (draft) => void (draft.waived = draft.waived.filter((one) => one.key !== key)),
                  ),
                )
              }
            >
              Look at it again
            </Button>
          </>
        )}
      </Stack>
    </Box>
  );
}

/**
 * What a student would suffer from, with what to do about it; looked for anew with every change.
 */
export function CheckBench() {
  const { id, lesson } = useOpenLesson();
  const dispatch = useAppDispatch();
  const [problem, setProblem] = useState<string | null>(null);
  const cut = useAssembly();
  const takes = useReadyTakes();
  const measure = useTextMeasure();
  const findings = useMemo(
    () => (measure ? checkLesson({ lesson, cut, takes, makeId, measure }) : null),
    [lesson, cut, takes, measure],
  );
  const left = findings?.filter(({ waived }) => waived !== null) ?? [];
  const open = findings?.filter(({ waived }) => waived === null) ?? [];
  const count = findings === null ? null : open.length;
  useEffect(() => {
    if (count !== null) sayFindings(id, count);
  }, [id, count]);
  if (!findings) return <Typography sx={{ p: 2 }}>Checking …</Typography>;
  const content = (
    <Stack spacing={2} sx={{ maxWidth: 980, mx: 'auto' }}>
      <Stack direction="row" sx={{ alignItems: 'center', gap: 2 }}>
        <Typography variant="h2" sx={{ flex: 1 }} data-testid="check-words">
          {open.length === 0
            ? 'Nothing stands in the way'
            : `${open.length} ${open.length === 1 ? 'thing' : 'things'} to look at`}
        </Typography>
        <Button
          variant="outlined"
          onClick={() => {
            setProblem(null);
            void dispatch(saveFirst()).then(async (unsaved) =>
              setProblem(
                unsaved ??
                  (await fetchFile(
                    'check.pdf',
                    urlOf(routes.print, { lessonId: id, print: 'check' }),
                  )),
              ),
            );
          }}
        >
          Report (PDF)
        </Button>
      </Stack>
      {problem && <Alert severity="error">{problem}</Alert>}
      <WatchStatus />
      {open.length === 0 && (
        <Alert severity="success">
          Plan, words, cut and everything that was watched hold against every rule there is.
        </Alert>
      )}
      {harms.map((harm) => {
        const ofHarm = open.filter((finding) => finding.harm === harm);
        return (
          ofHarm.length > 0 && (
            <Paper
              key={harm}
              variant="outlined"
              component="section"
              aria-label={harmName(harm)}
              sx={{ p: 2 }}
            >
              <Typography variant="h3">
                {harmName(harm)} ({ofHarm.length})
              </Typography>
              <Box component="ul" sx={{ p: 0, m: 0, mt: 1 }}>
                {ofHarm.map((finding) => (
                  <FindingRow key={finding.key} finding={finding} />
                ))}
              </Box>
            </Paper>
          )
        );
      })}
      {left.length > 0 && (
        <Paper variant="outlined" component="section" aria-label="Ignored" sx={{ p: 2 }}>
          <Typography variant="h3">Ignored ({left.length})</Typography>
          <Box component="ul" sx={{ p: 0, m: 0, mt: 1 }}>
            {left.map((finding) => (
              <FindingRow key={finding.key} finding={finding} />
            ))}
          </Box>
        </Paper>
      )}
    </Stack>
  );
  return <OnePane name={teacherText('bench.check')} content={content} />;
}
