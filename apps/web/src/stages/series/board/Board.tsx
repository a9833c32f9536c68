import { Box } from '@mui/material';
import type { LessonSummary } from '@zest/contract';
import { SERIES_LIMITS, stageName, stageSchools, type Series } from '@zest/core/lesson';
import type { SeriesWeek } from '@zest/core/schedule';
import { teacherText } from '@zest/core/words';
import { useMemo, type ReactNode } from 'react';
import { makeId } from '../../../app/ids.ts';
import { runningColours } from '../../../app/theme.ts';
import { AddButton } from '../../../ui/AddButton.tsx';
import { FieldLook } from '../../../ui/field-look.ts';
import { notesOf } from '../notes.ts';
import { makeRule } from '../rules.ts';
import type { ChangeSeries } from '../use-series.ts';
import { useChosen } from './choice.ts';
import { GrowthRow } from './GrowthRow.tsx';
import { SkillRow } from './SkillRow.tsx';
import { FocusCell, LessonCell, WeekHead } from './WeekCells.tsx';
import { breaksBefore } from './week-days.ts';
import './board.css';

const HEAD_PX = 140;
const WEEK_PX = 104;

interface BoardProps {
  series: Series;
  weeks: readonly SeriesWeek[];
  lessons: ReadonlyMap<number, LessonSummary>;
  change: ChangeSeries;
  onMake: (week: SeriesWeek) => void;
  busy: boolean;
}

/** The row that says what comes below it, with what adds to it. */
function GroupRow({
  title,
  weeks,
  children,
}: {
  title: string;
  weeks: number;
  children: ReactNode;
}) {
  return (
    <tr className="series-group">
      <th scope="rowgroup" colSpan={weeks + 1}>
        <span>
          <strong>{title}</strong>
          {children}
        </span>
      </th>
    </tr>
  );
}

/** The whole term: weeks as columns; lessons, what grows and skills as rows. */
export function Board({ series, weeks, lessons, change, onMake, busy }: BoardProps) {
  const { choose } = useChosen();
  const breaks = breaksBefore(series, weeks);
  // The same list while the school is: rows are drawn anew only where theirs changed.
  const stages = useMemo(
    () => stageSchools[series.stageSchool].map(stageName),
    [series.stageSchool],
  );
  const { progression, skills } = series;
  const addRule = () => {
    const rule = makeRule('workMs', makeId());
    change(teacherText('series.add-rule'), (d) => void d.progression.push(rule));
    choose({ what: 'rule', id: rule.id });
  };
  const addSkill = () => {
    const skill = { id: makeId(), name: teacherText('series.new-skill'), from: [1] };
    change(teacherText('series.add-skill'), (d) => void d.skills.push(skill));
    choose({ what: 'skill', id: skill.id });
  };
  return (
    <FieldLook value="bare">
      <Box
        component="table"
        className="series-board"
        aria-label={teacherText('series.board')}
        style={{ minWidth: HEAD_PX + weeks.length * WEEK_PX }}
        sx={runningColours}
      >
        <colgroup>
          <col style={{ width: HEAD_PX }} />
        </colgroup>
        <thead>
          <tr>
            <td />
            {weeks.map((at) => (
              <WeekHead key={at.week} at={at} breaks={breaks.get(at.week) ?? []} />
            ))}
          </tr>
        </thead>
        <tbody>
          <tr>
            <th scope="row">{teacherText('common.lesson')}</th>
            {weeks.map((at) => {
              return (
                <LessonCell
                  key={at.week}
                  at={at}
                  lesson={lessons.get(at.week)}
                  hasBasis={at.basis !== null && lessons.has(at.basis)}
                  notes={notesOf(series, at, lessons).length}
                  busy={busy}
                  onMake={() => onMake(at)}
                />
              );
            })}
          </tr>
          <tr>
            <th scope="row">{teacherText('series.about')}</th>
            {weeks.map(({ week, focus }) => (
              <FocusCell key={week} week={week} focus={focus} change={change} />
            ))}
          </tr>
        </tbody>
        <tbody>
          <GroupRow title={teacherText('series.grows')} weeks={weeks.length}>
            <AddButton
              label={teacherText('series.add-rule')}
              onAdd={addRule}
              count={progression.length}
              most={SERIES_LIMITS.rules}
            />
          </GroupRow>
          {progression.map((rule) => (
            <GrowthRow key={rule.id} rule={rule} weeks={weeks.length} change={change} />
          ))}
        </tbody>
        <tbody>
          <GroupRow title={teacherText('series.skills')} weeks={weeks.length}>
            <AddButton
              label={teacherText('series.add-skill')}
              onAdd={addSkill}
              count={skills.length}
              most={SERIES_LIMITS.skills}
            />
          </GroupRow>
          {skills.map((skill) => (
            <SkillRow
              key={skill.id}
              skill={skill}
              stages={stages}
              weeks={weeks.length}
              change={change}
            />
          ))}
        </tbody>
      </Box>
    </FieldLook>
  );
}
