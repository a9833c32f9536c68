import {
  Alert,
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  Stack,
  TextField,
  Typography,
} from '@mui/material';
import { portraitOf } from '@zest/core/making';
import { draftFrom, patterns, type Answers, type Pattern } from '@zest/core/patterns';
import type { Lesson } from '@zest/core/lesson';
import { applyFit, scheduleLesson } from '@zest/core/schedule';
import { clockText } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { api, problemText } from '../../app/api.ts';
import { makeId } from '../../app/ids.ts';
import { messageOf } from '../../app/message.ts';
import { useSettled } from '../../ui/use-settled.ts';
import { fitInWorker } from '../../workers/fit.ts';
import { LessonStrip } from './LessonStrip.tsx';
import './patterns.css';

/** A lesson fitted to its slot beside the page; as it is until that is worked out. */
function useFitted(draft: Lesson): Lesson {
  const [fitted, setFitted] = useState<{ of: Lesson; lesson: Lesson } | null>(null);
  useEffect(() => {
    const fitting = fitInWorker(draft);
    void fitting.result.then(
      (fit) => fit && setFitted({ of: draft, lesson: applyFit(draft, fit) }),
      // It is seen unfitted; making it says what is wrong.
      () => undefined,
    );
    return fitting.stop;
  }, [draft]);
  return fitted?.of === draft ? fitted.lesson : draft;
}

/** The questions of a pattern, and the lesson they make, seen while they are answered. */
function PatternDialog({ pattern, onClose }: { pattern: Pattern; onClose: () => void }) {
  const [answers, setAnswers] = useState<Answers>({});
  const [makeLesson, making] = api.useMakeLessonMutation();
  const navigate = useNavigate();
  const settled = useSettled(answers);
  const draft = useMemo(() => draftFrom(pattern, settled, makeId), [pattern, settled]);
  const lesson = useFitted(draft);
  const schedule = useMemo(() => scheduleLesson(lesson), [lesson]);
  const [fault, setFault] = useState<string | null>(null);
  const make = async () => {
    const asked = draftFrom(pattern, answers, makeId);
    try {
      const fit = await fitInWorker(asked).result;
      const made = await makeLesson({ document: fit ? applyFit(asked, fit) : asked });
      if (made.data) void navigate(`/lessons/${made.data.id}/plan`);
      else setFault(problemText(made.error));
    } catch (error) {
      setFault(messageOf(error));
    }
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="pattern-title">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void make();
        }}
      >
        <DialogTitle id="pattern-title">{teacherText(`pattern.${pattern.id}`)}</DialogTitle>
        <DialogContent>
          <Stack spacing={1.5} sx={{ pt: 1 }}>
            {pattern.questions.map(({ id, ask, kind, usual }, i) => (
              <TextField
                key={id}
                label={teacherText(ask)}
                value={answers[id] ?? ''}
                placeholder={usual()}
                autoFocus={i === 0}
                helperText={kind === 'list' ? teacherText('ask.list-helper') : undefined}
                slotProps={{
                  inputLabel: { shrink: true },
                  htmlInput: { inputMode: kind === 'count' ? 'numeric' : 'text' },
                }}
                onChange={(event) => setAnswers({ ...answers, [id]: event.target.value })}
              />
            ))}
            <Box>
              <Typography sx={{ fontWeight: 700 }}>{lesson.title}</Typography>
              <LessonStrip blocks={portraitOf(lesson, schedule).strip} height={30} />
              <Typography variant="body2" color="text.secondary">
                {teacherText('pattern.length', {
                  clock: clockText(schedule.videoMs),
                  blocks: schedule.blocks.length,
                })}
              </Typography>
            </Box>
            {fault && <Alert severity="error">{fault}</Alert>}
          </Stack>
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>{teacherText('pattern.cancel')}</Button>
          <Button type="submit" variant="contained" disabled={making.isLoading}>
            {teacherText('pattern.make')}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}

/** Lessons one has only to fill in, each shown as the strip it makes. */
export function Patterns() {
  const [chosen, setChosen] = useState<Pattern | null>(null);
  const tiles = useMemo(
    () =>
      patterns.map((pattern) => {
        const lesson = draftFrom(pattern, {}, makeId);
        return { pattern, strip: portraitOf(lesson, scheduleLesson(lesson)).strip };
      }),
    [],
  );
  return (
    <Box component="section" aria-label={teacherText('pattern.from')} sx={{ mt: 2 }}>
      <Typography variant="h2" sx={{ mb: 1 }}>
        {teacherText('pattern.from')}
      </Typography>
      <div className="patterns">
        {tiles.map(({ pattern, strip }) => (
          <button
            type="button"
            key={pattern.id}
            className="pattern"
            onClick={() => setChosen(pattern)}
          >
            <LessonStrip blocks={strip} height={26} />
            <span className="pattern-name">{teacherText(`pattern.${pattern.id}`)}</span>
            <span className="pattern-about">{teacherText(`pattern.${pattern.id}-about`)}</span>
          </button>
        ))}
      </div>
      {chosen && <PatternDialog pattern={chosen} onClose={() => setChosen(null)} />}
    </Box>
  );
}
