import { Stack, Typography } from '@mui/material';
import { LIMITS, withStageFrom, type Series } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { AimField, TextLine } from '../../../ui/fields.tsx';
import type { ChangeSeries } from '../use-series.ts';

interface SkillPanelProps {
  skill: Series['skills'][number];
  stages: readonly string[];
  change: ChangeSeries;
}

/** A skill: what it is called, and from which week each stage holds. */
export function SkillPanel({ skill, stages, change }: SkillPanelProps) {
  const { id, name, from } = skill;
  const alter = (label: string, recipe: (draft: Series['skills'][number]) => void) =>
    change(label, (d) => {
      const now = d.skills.find((one) => one.id === id);
      if (now) recipe(now);
    });
  return (
    <Stack spacing={2}>
      <TextLine
        label={teacherText('common.skill')}
        value={name}
        most={LIMITS.title}
        required
        onChange={(text) => alter(teacherText('common.skill'), (d) => void (d.name = text))}
      />
      <Typography>{teacherText('series.stages-from')}</Typography>
      {stages.map((stage, s) => (
        <AimField
          key={stage}
          label={`${stage[0]?.toUpperCase()}${stage.slice(1)}`}
          value={from[s] ?? null}
          most={LIMITS.weeks}
          onChange={(week) =>
            alter(
              teacherText('series.stage-from', { stage, skill: name }),
              (d) => void (d.from = withStageFrom(d.from, s, week)),
            )
          }
        />
      ))}
    </Stack>
  );
}
