import { Alert, Box, Button, Card, CardActionArea, Chip, Paper, Stack, TextField, Typography } from '@mui/material';
import type { LessonSummary } from '@zest/contract';
import { clockText } from '@zest/core/time';
import { useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, problemText } from '../../app/api.ts';
import { Wordmark } from '../../ui/Wordmark.tsx';

/** What a lesson needs next, in the teacher's order. */
function nextThing(lesson: LessonSummary): { text: string; bench: string } {
  if (lesson.blocks === 0) return { text: 'Plan the first block', bench: 'plan' };
  if (lesson.filmed < lesson.blocks) {
    const left = lesson.blocks - lesson.filmed;
    return { text: `Film ${left} more ${left === 1 ? 'block' : 'blocks'}`, bench: 'film' };
  }
  if (!lesson.shared) return { text: 'Watch it through, then share', bench: 'assemble' };
  return { text: 'Shared', bench: 'share' };
}

function LessonCard({ lesson }: { lesson: LessonSummary }) {
  const next = nextThing(lesson);
  return (
    <Card variant="outlined" sx={{ width: 300 }}>
      <CardActionArea component={Link} to={`/lessons/${lesson.id}/${next.bench}`} sx={{ p: 2, height: '100%' }}>
        <Stack spacing={1}>
          <Typography variant="body2" color="text.secondary">
            {lesson.series.week === null ? 'No week' : `Week ${lesson.series.week}`}
          </Typography>
          <Typography component="h3" variant="h2" sx={{ overflowWrap: 'anywhere' }}>
            {lesson.title}
          </Typography>
          <Typography color="text.secondary">
            {clockText(lesson.videoMs)} of video
            {lesson.studentMs > lesson.videoMs && `, ${clockText(lesson.studentMs)} for the student`}
          </Typography>
          <Typography color="text.secondary">
            {lesson.filmed} of {lesson.blocks} {lesson.blocks === 1 ? 'block' : 'blocks'} filmed
          </Typography>
          <Chip size="small" sx={{ alignSelf: 'start' }} color={lesson.shared ? 'success' : 'primary'} label={`Next: ${next.text}`} variant="outlined" />
        </Stack>
      </CardActionArea>
    </Card>
  );
}

function bySeries(lessons: LessonSummary[]): [string, LessonSummary[]][] {
  const rows = new Map<string, LessonSummary[]>();
  for (const lesson of lessons) rows.set(lesson.series.name, [...(rows.get(lesson.series.name) ?? []), lesson]);
  for (const row of rows.values()) row.sort((a, b) => (a.series.week ?? 100) - (b.series.week ?? 100));
  return [...rows].sort(([a], [b]) => a.localeCompare(b));
}

/** All lessons: series as rows, weeks as cards, what each needs next. */
export function Shelf() {
  const lessons = api.useLessonsQuery();
  const session = api.useSessionQuery();
  const [makeLesson, making] = api.useMakeLessonMutation();
  const [signOut] = api.useSignOutMutation();
  const [title, setTitle] = useState('');
  const [fileFault, setFileFault] = useState<string | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();

  const make = async (body: { title: string } | { document: unknown }) => {
    const made = await makeLesson(body);
    if (made.data) void navigate(`/lessons/${made.data.id}/plan`);
  };
  const openFile = async (chosen: File | undefined) => {
    if (!chosen) return;
    setFileFault(null);
    try {
      await make({ document: JSON.parse(await chosen.text()) });
    } catch {
      setFileFault(`${chosen.name} is not a lesson file. Choose a file saved from the Share bench.`);
    }
  };
  const problem = fileFault ?? problemText(making.error ?? lessons.error);

  return (
    <Box component="main" sx={{ p: { xs: 2, md: 4 }, maxWidth: 1320, mx: 'auto' }}>
      <Stack direction="row" spacing={2} sx={{ alignItems: 'center', mb: 3 }}>
        <Wordmark />
        <Box sx={{ flex: 1 }} />
        <Typography color="text.secondary">{session.data?.user?.login}</Typography>
        <Button onClick={() => void signOut()}>Sign out</Button>
      </Stack>
      <Typography variant="h1" sx={{ mb: 2 }}>
        Lessons
      </Typography>
      <Paper
        variant="outlined"
        component="form"
        sx={{ p: 2, mb: 3 }}
        onSubmit={(event) => {
          event.preventDefault();
          void make({ title });
        }}
      >
        <Stack direction={{ xs: 'column', sm: 'row' }} spacing={2}>
          <TextField label="Title of a new lesson" value={title} onChange={(event) => setTitle(event.target.value)} sx={{ maxWidth: 420 }} />
          <Button type="submit" variant="contained" disabled={making.isLoading}>
            Start a lesson
          </Button>
          <Button onClick={() => file.current?.click()}>Open a lesson file</Button>
          <input
            ref={file}
            type="file"
            accept="application/json,.json"
            hidden
            aria-label="Lesson file"
            onChange={(event) => {
              void openFile(event.target.files?.[0]);
              event.target.value = '';
            }}
          />
        </Stack>
        {problem && (
          <Alert severity="error" sx={{ mt: 2 }}>
            {problem}
          </Alert>
        )}
      </Paper>
      {lessons.data?.length === 0 && (
        <Alert severity="info">No lessons yet. Type a title above and press “Start a lesson”.</Alert>
      )}
      {bySeries(lessons.data ?? []).map(([series, row]) => (
        <Box component="section" key={series} sx={{ mb: 3 }}>
          <Typography variant="h2" sx={{ mb: 1, borderBottom: 2, borderColor: 'divider', pb: 0.5 }}>
            {series || 'Single lessons'}
          </Typography>
          <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 2 }}>
            {row.map((lesson) => (
              <LessonCard key={lesson.id} lesson={lesson} />
            ))}
          </Stack>
        </Box>
      ))}
    </Box>
  );
}
