import { Box, Card, CardActionArea, Chip, Stack, Typography } from '@mui/material';
import type { LessonSummary } from '@zest/contract';
import { duplicateLesson, LessonError, LIMITS, mergeLessons } from '@zest/core/lesson';
import { clockText } from '@zest/core/time';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, problemText } from '../../app/api.ts';
import { makeId } from '../../app/ids.ts';
import { useNotice } from '../../app/notice.tsx';
import { teamApi } from '../../app/team-api.ts';
import { MenuButton } from '../../ui/MenuButton.tsx';
import { DeleteDialog } from './DeleteDialog.tsx';
import { HandOverDialog } from './HandOverDialog.tsx';
import { MergeDialog } from './MergeDialog.tsx';
import { nextThing } from './next-thing.ts';

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
    if (!second.data) return notice(problemText(second.error) ?? 'That didn’t work.');
    const added = second.data.lesson;
    try {
      const { error } = await make((document) => ({
        ...mergeLessons(document, added, makeId),
        title: `${document.title} and ${added.title}`.slice(0, LIMITS.title),
      }));
      if (error) notice(problemText(error) ?? 'That didn’t work.');
    } catch (error) {
      if (!(error instanceof LessonError)) throw error;
      notice(error.message);
    }
  };
  return { make, merge };
}

const CORNER = { position: 'absolute', top: 4, right: 4 } as const;

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
      notice(error ? (problemText(error) ?? 'That didn’t work.') : done),
    );
  const { make, merge } = useNewFrom(id);
  const entries = [
    {
      name: 'Duplicate',
      run: run(
        () => make((document) => duplicateLesson(document, makeId)),
        `“${title}” was duplicated.`,
      ),
    },
    { name: 'Merge with another lesson …', run: () => setMerging(true) },
    ...((team.data ?? []).length > 1
      ? [{ name: 'Hand over …', run: () => setHandingOver(true) }]
      : []),
    {
      name: template ? 'No longer a template' : 'Use as a template',
      run: run(
        () => putOnShelf({ lessonId: id, archived, template: !template }),
        template ? 'No longer a template.' : 'Saved as a template for new lessons.',
      ),
    },
    {
      name: archived ? 'Back to the shelf' : 'Archive',
      run: run(
        () => putOnShelf({ lessonId: id, archived: !archived, template }),
        archived ? 'Back on the shelf.' : 'Archived. Switch “archive” on to see it.',
      ),
    },
    ...(archived ? [{ name: 'Delete for good …', run: () => setDeleting(true) }] : []),
  ];
  return (
    <>
      <MenuButton label={`More for ${title}`} entries={entries} sx={CORNER} />
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

/** A lesson on the shelf. */
export function LessonCard({ lesson, due }: { lesson: LessonSummary; due: string | null }) {
  const team = teamApi.useTeamQuery();
  const next = nextThing(lesson);
  return (
    <Card
      variant="outlined"
      sx={{
        width: 300,
        position: 'relative',
        ...(lesson.archived && { borderStyle: 'dashed', borderWidth: 2 }),
      }}
    >
      <CardActionArea
        component={Link}
        to={`/lessons/${lesson.id}/${next.bench}`}
        sx={{ p: 2, height: '100%' }}
      >
        <Stack spacing={1}>
          <Typography variant="body2" color="text.secondary" sx={{ pr: 4 }}>
            {[
              lesson.series.week === null ? 'No week' : `Week ${lesson.series.week}`,
              due,
              lesson.archived ? 'archived' : null,
            ]
              .filter((text) => text !== null)
              .join(' · ')}
          </Typography>
          <Typography component="h3" variant="h2" sx={{ overflowWrap: 'anywhere' }}>
            {lesson.title}
          </Typography>
          <Typography color="text.secondary">
            {clockText(lesson.videoMs)} of video
            {lesson.studentMs > lesson.videoMs &&
              `, ${clockText(lesson.studentMs)} for the student`}
          </Typography>
          <Typography color="text.secondary">
            {lesson.filmed} of {lesson.blocks} {lesson.blocks === 1 ? 'block' : 'blocks'} filmed
          </Typography>
          {(team.data ?? []).length > 1 && (
            <Typography color="text.secondary">
              {lesson.keeper === null ? 'Unassigned' : `Assigned to ${lesson.keeper}`}
            </Typography>
          )}
          <Box>
            <Chip
              size="small"
              color={lesson.shared ? 'success' : 'primary'}
              label={`Next: ${next.text}`}
              variant="outlined"
            />
          </Box>
        </Stack>
      </CardActionArea>
      <LessonMenu lesson={lesson} />
    </Card>
  );
}
