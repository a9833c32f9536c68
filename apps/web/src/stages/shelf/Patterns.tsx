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
import { lessonFrom, patterns, type Answers, type Pattern } from '@zest/core/patterns';
import { scheduleLesson } from '@zest/core/schedule';
import { clockText } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { useDeferredValue, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { api, problemText } from '../../app/api.ts';
import { makeId } from '../../app/ids.ts';
import { LessonStrip } from './LessonStrip.tsx';
import './patterns.css';

/** The questions of a pattern, and the lesson they make, seen while they are answered. */
function PatternDialog({ pattern, onClose }: { pattern: Pattern; onClose: () => void }) {
  const [answers, setAnswers] = useState<Answers>({});
  const [makeLesson, making] = api.useMakeLessonMutation();
  const navigate = useNavigate();
  const settled = useDeferredValue(answers);
  const lesson = useMemo(() => lessonFrom(pattern, settled, makeId), [pattern, settled]);
  const schedule = useMemo(() => scheduleLesson(lesson), [lesson]);
  const make = async () => {
    const made = await makeLesson({ document: lessonFrom(pattern, answers, makeId) });
    if (made.data) void navigate(`/lessons/${made.data.id}/plan`);
  };
  const fault = problemText(making.error);
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
                placeholder={usual}
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
        const lesson = lessonFrom(pattern, {}, makeId);
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
