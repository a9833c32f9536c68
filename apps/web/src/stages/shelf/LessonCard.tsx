import { Box, Button, Card, CardActionArea, Stack, Typography } from '@mui/material';
import type { LessonSummary } from '@zest/contract';
import { duplicateLesson, LessonError, LIMITS, mergeLessons } from '@zest/core/lesson';
import { benches } from '@zest/core/making';
import { clockText } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, problemText } from '../../app/api.ts';
import { makeId } from '../../app/ids.ts';
import { useNotice } from '../../app/notice.tsx';
import { teamApi } from '../../app/team-api.ts';
import { StateMark } from '../../frame/StateMark.tsx';
import { MenuButton } from '../../ui/MenuButton.tsx';
import { DeleteDialog } from './DeleteDialog.tsx';
import { HandOverDialog } from './HandOverDialog.tsx';
import { MergeDialog } from './MergeDialog.tsx';
import { nextThing } from './next-thing.ts';
import { Portrait } from './Portrait.tsx';

/** Lessons made of a stored one: a copy, or joined with another. */
function useNewFrom(id: string) {
  const [read] = api.useLazyLessonQuery();
  const [makeLesson] = api.useMakeLessonMutation();
  const navigate = useNavigate();
  const notice = useNotice();
  /** A new lesson made of this one as it is stored now. */
  const make = async (document: (opened: Parameters<typeof duplicateLesson>[0]) => unknown) => {
    const stored = await read(id);
    if (!stored.data) return { error: stored.error };
    const made = await makeLesson({ document: document(stored.data.lesson) });
    if (made.data) void navigate(`/lessons/${made.data.id}/plan`);
    return made;
  };
  const merge = async (other: LessonSummary) => {
    const second = await read(other.id);
    if (!second.data) return notice(problemText(second.error) ?? teacherText('shelf.didn-t-work'));
    const added = second.data.lesson;
    try {
      const { error } = await make((document) => ({
        ...mergeLessons(document, added, makeId),
        title: `${document.title} and ${added.title}`.slice(0, LIMITS.title),
      }));
      if (error) notice(problemText(error) ?? teacherText('shelf.didn-t-work'));
    } catch (error) {
      if (!(error instanceof LessonError)) throw error;
      notice(error.message);
    }
  };
  return { make, merge };
}

const CORNER = {
  ...{ position: 'absolute', top: 6, right: 6 },
  ...{ bgcolor: '#fffaf2e0', '&:hover': { bgcolor: '#fffaf2' } },
} as const;

/** What can be done with a lesson as a whole. */
function LessonMenu({ lesson }: { lesson: LessonSummary }) {
  const [isMerging, setMerging] = useState(false);
  const [isHandingOver, setHandingOver] = useState(false);
  const team = teamApi.useTeamQuery();
  const [putOnShelf] = api.usePutOnShelfMutation();
  const [isDeleting, setDeleting] = useState(false);
  const notice = useNotice();
  const { id, title, archived, template } = lesson;
  const run = (what: () => Promise<{ error?: unknown }>, done: string) => () =>
    void what().then(({ error }) =>
      notice(error ? (problemText(error) ?? teacherText('shelf.didn-t-work')) : done),
    );
  const { make, merge } = useNewFrom(id);
  const entries = [
    {
      name: teacherText('shelf.duplicate'),
      run: run(
        () => make((document) => duplicateLesson(document, makeId)),
        teacherText('shelf.was-duplicated', { title }),
      ),
    },
    { name: teacherText('shelf.merge-another-lesson'), run: () => setMerging(true) },
    ...((team.data ?? []).length > 1
      ? [{ name: teacherText('shelf.hand-over'), run: () => setHandingOver(true) }]
      : []),
    {
      name: template ? teacherText('shelf.template-end') : teacherText('shelf.use-template'),
      run: run(
        () => putOnShelf({ lessonId: id, archived, template: !template }),
        template
          ? teacherText('shelf.template-ended')
          : teacherText('shelf.saved-template-new-lessons'),
      ),
    },
    {
      name: archived ? teacherText('shelf.restore') : teacherText('shelf.archive'),
      run: run(
        () => putOnShelf({ lessonId: id, archived: !archived, template }),
        archived ? teacherText('shelf.restored') : teacherText('shelf.archived-switch-archive-see'),
      ),
    },
    ...(archived ? [{ name: teacherText('shelf.delete'), run: () => setDeleting(true) }] : []),
  ];
  return (
    <>
      <MenuButton label={teacherText('shelf.more', { title })} entries={entries} sx={CORNER} />
      {isDeleting && <DeleteDialog lesson={lesson} onClose={() => setDeleting(false)} />}
      {isHandingOver && (
        <HandOverDialog
          lesson={lesson}
          team={team.data ?? []}
          onClose={() => setHandingOver(false)}
        />
      )}
      {isMerging && (
        <MergeDialog
          lesson={lesson}
          onClose={() => setMerging(false)}
          onChoose={(other) => {
            setMerging(false);
            void merge(other);
          }}
        />
      )}
    </>
  );
}

/** How far each bench is, each as its mark. */
function BenchMarks({ benches: states }: Pick<LessonSummary, 'benches'>) {
  return (
    <Box
      component="ul"
      aria-label={teacherText('card.benches')}
      sx={{ display: 'flex', gap: 0.5, m: 0, p: 0, listStyle: 'none', '--bar-ground': '#fffaf2' }}
    >
      {benches.map((bench) => {
        const words = `${teacherText(`bench.${bench}`)}: ${teacherText(`state.${states[bench]}`)}`;
        return (
          <li key={bench}>
            <Box component="span" role="img" aria-label={words} title={words}>
              <StateMark state={states[bench]} />
            </Box>
          </li>
        );
      })}
    </Box>
  );
}

/** A lesson on the shelf: its picture, its times, how far it is, and what it needs next. */
export function LessonCard({ lesson, due }: { lesson: LessonSummary; due: string | null }) {
  const team = teamApi.useTeamQuery();
  const next = nextThing(lesson);
  const { series, archived, videoMs, studentMs } = lesson;
  const to = `/lessons/${lesson.id}/${next.bench}`;
  const when = [
    series.week === null ? null : teacherText('card.week', { week: series.week }),
    due,
    archived ? teacherText('card.archived') : null,
  ].filter((text) => text !== null);
  return (
    <Card
      variant="outlined"
      sx={{
        width: 290,
        position: 'relative',
        display: 'flex',
        flexDirection: 'column',
        ...(archived && { borderStyle: 'dashed', borderWidth: 2 }),
      }}
    >
      <CardActionArea component={Link} to={to} sx={{ flex: 1 }}>
        <Portrait portrait={lesson.portrait} />
        <Stack spacing={0.25} sx={{ px: 1.5, pt: 1, pb: 0.5 }}>
          {when.length > 0 && (
            <Typography variant="body2" color="text.secondary">
              {when.join(' · ')}
            </Typography>
          )}
          <Typography component="h3" variant="h3" sx={{ overflowWrap: 'anywhere' }}>
            {lesson.title}
          </Typography>
          <Typography variant="body2" sx={{ fontVariantNumeric: 'tabular-nums' }}>
            {teacherText('card.times', {
              video: clockText(videoMs),
              student: clockText(studentMs),
              isLonger: studentMs > videoMs ? 'yes' : 'no',
            })}
          </Typography>
          {(team.data ?? []).length > 1 && (
            <Typography variant="body2" color="text.secondary">
              {lesson.keeper === null
                ? teacherText('card.unassigned')
                : teacherText('card.keeper', { name: lesson.keeper })}
            </Typography>
          )}
        </Stack>
      </CardActionArea>
      <Stack
        direction="row"
        sx={{ alignItems: 'center', justifyContent: 'space-between', px: 1.5, pb: 1, gap: 1 }}
      >
        <BenchMarks benches={lesson.benches} />
        {!lesson.template && (
          <Button
            component={Link}
            to={to}
            size="small"
            variant="outlined"
            sx={{ minHeight: { xs: 44, md: 30 }, py: 0, px: 1, whiteSpace: 'nowrap' }}
          >
            {next.text}
          </Button>
        )}
      </Stack>
      <LessonMenu lesson={lesson} />
    </Card>
  );
}
