import { Button, Stack, Typography } from '@mui/material';
import ArrowBackIcon from '@mui/icons-material/ArrowBack';
import type { LessonSummary } from '@zest/contract';
import { stageName, stageSchools } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import type { ReactNode } from 'react';
import { useChosen } from '../board/choice.ts';
import { notesOf } from '../notes.ts';
import { ruleName } from '../rules.ts';
import type { OpenSeries } from '../use-series.ts';
import { RulePanel } from './RulePanel.tsx';
import { SeriesFacts } from './SeriesFacts.tsx';
import { SkillPanel } from './SkillPanel.tsx';
import { WeekPanel } from './WeekPanel.tsx';

interface OneProps {
  title: string;
  /** What takes it out of the series. */
  remove?: { name: string; run: () => void };
  children: ReactNode;
}

/** One thing of the series, and the way back to all of it. */
function One({ title, remove, children }: OneProps) {
  const { choose } = useChosen();
  return (
    <Stack spacing={2}>
      <Button
        size="small"
        startIcon={<ArrowBackIcon />}
        sx={{ alignSelf: 'start' }}
        onClick={() => choose(null)}
      >
        {teacherText('series.back')}
      </Button>
      <Typography variant="h2">{title}</Typography>
      {children}
      {remove && (
        <Button
          color="error"
          sx={{ alignSelf: 'start' }}
          onClick={() => {
            remove.run();
            choose(null);
          }}
        >
          {remove.name}
        </Button>
      )}
    </Stack>
  );
}

interface SidePanelProps {
  open: OpenSeries;
  lessons: ReadonlyMap<number, LessonSummary>;
  onDelete: () => void;
}

/** What is chosen on the board; with nothing chosen, the series itself. */
export function SidePanel({ open, lessons, onDelete }: SidePanelProps) {
  const { chosen } = useChosen();
  const { series, weeks, change } = open;
  if (chosen?.what === 'week') {
    const at = weeks?.[chosen.week - 1];
    return (
      <One title={teacherText('series.week', { week: chosen.week })}>
        <WeekPanel
          week={chosen.week}
          plan={series.weekPlans.find(({ week }) => week === chosen.week)}
          at={at}
          notes={at ? notesOf(series, at, lessons) : []}
          change={change}
        />
      </One>
    );
  }
  if (chosen?.what === 'rule') {
    const rule = series.progression.find(({ id }) => id === chosen.id);
    const name = teacherText('series.remove-rule');
    if (rule)
      return (
        <One
          title={ruleName(rule)}
          remove={{
            name,
            run: () =>
              change(
                name,
                (d) => void (d.progression = d.progression.filter(({ id }) => id !== rule.id)),
              ),
          }}
        >
          <RulePanel key={rule.id} rule={rule} change={change} />
        </One>
      );
  }
  if (chosen?.what === 'skill') {
    const skill = series.skills.find(({ id }) => id === chosen.id);
    const name = teacherText('series.remove-skill');
    if (skill)
      return (
        <One
          title={skill.name}
          remove={{
            name,
            run: () =>
              change(name, (d) => void (d.skills = d.skills.filter(({ id }) => id !== skill.id))),
          }}
        >
          <SkillPanel
            key={skill.id}
            skill={skill}
            stages={stageSchools[series.stageSchool].map(stageName)}
            change={change}
          />
        </One>
      );
  }
  return (
    <Stack spacing={2}>
      <SeriesFacts series={series} change={change} />
      <Button color="error" sx={{ alignSelf: 'start' }} onClick={onDelete}>
        {teacherText('series.delete')}
      </Button>
    </Stack>
  );
}
