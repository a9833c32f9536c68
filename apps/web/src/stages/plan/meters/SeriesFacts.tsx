import { Box, Button, Typography } from '@mui/material';
import { figureChangeText, LIMITS, type Lesson } from '@zest/core/lesson';
import {
  kitChanges,
  layOutWeeks,
  neighbourWords,
  progressChanges,
  progressTo,
} from '@zest/core/schedule';
import { teacherText } from '@zest/core/words';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { api } from '../../../app/api.ts';
import { edit } from '../../../app/lesson-slice.ts';
import { useAppDispatch } from '../../../app/store.ts';
import { useLessonPart, useOpenLesson } from '../../../app/use-lesson.ts';
import { TextLine } from '../../../ui/fields.tsx';

interface SeriesFactsProps {
  lesson: Lesson;
  set: (label: string, recipe: (draft: Lesson) => void) => void;
}

/** A line of text, and the words its neighbour in the series has for it. */
function NeighbourLine({
  label,
  value,
  offer,
  onChange,
}: {
  label: string;
  value: string;
  offer: string;
  onChange: (text: string) => void;
}) {
  return (
    <Box sx={{ flex: '1 1 280px' }}>
      <TextLine label={label} value={value} most={LIMITS.line} onChange={onChange} />
      {offer !== '' && offer !== value && (
        <Button
          size="small"
          sx={{ textAlign: 'left' }}
          onClick={() => onChange(offer.slice(0, LIMITS.line))}
        >
          {teacherText('meter.take', { offer })}
        </Button>
      )}
    </Box>
  );
}

/**
 * How the lesson stands in its series: what it takes from its neighbours, and what the progression
 * asks of it.
 */
export function SeriesFacts({ lesson, set }: SeriesFactsProps) {
  const { id } = useOpenLesson();
  const { recap, teaser } = useLessonPart(({ series }) => series);
  const { week, name } = lesson.series;
  const lessons = api.useLessonsQuery(undefined, { skip: week === null || name === '' }).data;
  const stored = api.useSeriesQuery().data?.find(({ series }) => series.name === name);
  const dispatch = useAppDispatch();
  const words = useMemo(() => {
    const others = (lessons ?? []).filter(
      (other) =>
        other.id !== id && other.series.name === name && !other.template && !other.archived,
    );
    return week === null
      ? { recap: '', teaser: '' }
      : neighbourWords(
          others.map((other) => ({
            week: other.series.week,
            title: other.title,
            outcome: other.outcome,
          })),
          week,
          lesson.settings.language,
        );
  }, [lessons, id, name, week, lesson.settings.language]);
  const plan = useMemo(
    () =>
      stored && week !== null
        ? {
            at: layOutWeeks(stored.series)[week - 1],
            changes: progressChanges(lesson, stored.series, week),
            kit: kitChanges(lesson, stored.series, week),
            edit: progressTo(lesson, stored.series, week),
          }
        : null,
    [stored, lesson, week],
  );
  return (
    <>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 2 }}>
        <NeighbourLine
          label={teacherText('meter.learnt-last-time')}
          value={recap}
          offer={words.recap}
          onChange={(text) =>
            set(teacherText('meter.learnt-last-time'), (d) => void (d.series.recap = text))
          }
        />
        <NeighbourLine
          label={teacherText('meter.comes-next')}
          value={teaser}
          offer={words.teaser}
          onChange={(text) =>
            set(teacherText('meter.comes-next'), (d) => void (d.series.teaser = text))
          }
        />
      </Box>
      {stored && plan?.at && week !== null && (
        <Typography>
          <Link to={`/series/${stored.id}`}>{name}</Link>{' '}
          {teacherText('meter.week-of-series', {
            week,
            stages:
              plan.at.stages.map(({ skill, stage }) => `${skill}: ${stage}`).join(', ') ||
              teacherText('meter.no-skill-has-reached'),
          })}
        </Typography>
      )}
      {plan && plan.changes.length + plan.kit.length > 0 && (
        <Box>
          <Typography>
            {teacherText('meter.progression-asks', {
              list: [
                ...plan.changes.map(figureChangeText),
                ...plan.kit.map(({ from, to }) => `${from} → ${to}`),
              ].join('; '),
            })}
          </Typography>
          <Button
            size="small"
            onClick={() => dispatch(edit(teacherText('meter.progress-to-this-week'), plan.edit))}
          >
            {teacherText('meter.progress-to-week', { week: week ?? 0 })}
          </Button>
        </Box>
      )}
    </>
  );
}
