import { Button } from '@mui/material';
import type { LessonSummary } from '@zest/contract';
import { LIMITS } from '@zest/core/lesson';
import type { SeriesWeek } from '@zest/core/schedule';
import { clockText } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { memo } from 'react';
import { Link } from 'react-router';
import { TextLine } from '../../../ui/fields.tsx';
import { Portrait } from '../../shelf/Portrait.tsx';
import { setOfWeek } from '../panel/week-plan.ts';
import type { ChangeSeries } from '../use-series.ts';
import { useChosen } from './choice.ts';
import { daysText } from './week-days.ts';

interface HeadProps {
  at: SeriesWeek;
  breaks: readonly string[];
}

/** The head of a week's column: its number, its days, and the breaks before it. */
export function WeekHead({ at, breaks }: HeadProps) {
  const { chosen, choose } = useChosen();
  const { week, dates, sessions } = at;
  return (
    <th scope="col" className={breaks.length > 0 ? 'is-after-break' : undefined}>
      <button
        type="button"
        className="series-head"
        aria-pressed={chosen?.what === 'week' && chosen.week === week}
        onClick={() => choose({ what: 'week', week })}
      >
        <span>{teacherText('series.week', { week })}</span>
        <small>
          {dates.length > 0 ? daysText(dates) : teacherText('series.sessions', { n: sessions })}
        </small>
        {breaks.length > 0 && (
          <small className="series-break">
            {teacherText('series.after-break', { breaks: breaks.join(', ') })}
          </small>
        )}
      </button>
    </th>
  );
}

/** What a week is about, typed where it stands. */
export const FocusCell = memo(function FocusCell({
  week,
  focus,
  change,
}: {
  week: number;
  focus: string;
  change: ChangeSeries;
}) {
  return (
    <td>
      <TextLine
        label={teacherText('series.about-week', { week })}
        placeholder="…"
        rows={2}
        value={focus}
        most={LIMITS.title}
        onChange={(text) => setOfWeek(change, week, { focus: text })}
      />
    </td>
  );
});

interface LessonCellProps {
  at: SeriesWeek;
  lesson: LessonSummary | undefined;
  /** Whether the lesson it goes on from is there. */
  hasBasis: boolean;
  /** How much there is to look at. */
  notes: number;
  busy: boolean;
  onMake: () => void;
}

/** A week's lesson: its picture, its time, what to look at; or the button that makes it. */
export function LessonCell({ at, lesson, hasBasis, notes, busy, onMake }: LessonCellProps) {
  const { choose } = useChosen();
  return (
    <td className="series-lesson">
      {lesson ? (
        <Link to={`/lessons/${lesson.id}/plan`}>
          <Portrait portrait={lesson.portrait} />
          <span className="series-lesson-title">{lesson.title}</span>
          <small>{clockText(lesson.studentMs)}</small>
        </Link>
      ) : (
        <Button size="small" variant="outlined" disabled={busy} onClick={onMake}>
          {hasBasis && at.basis !== null
            ? teacherText('series.make-from', { week: at.basis })
            : teacherText('series.make')}
        </Button>
      )}
      {notes > 0 && (
        <button
          type="button"
          className="series-notes"
          onClick={() => choose({ what: 'week', week: at.week })}
        >
          {teacherText('series.notes', { n: notes })}
        </button>
      )}
    </td>
  );
}
