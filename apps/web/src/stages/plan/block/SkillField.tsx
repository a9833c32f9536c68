import { Autocomplete, TextField } from '@mui/material';
import { blocksOf, LIMITS } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useMemo } from 'react';
import { api } from '../../../app/api.ts';
import { useUndoMark } from '../../../ui/draft.ts';
import { useOpenLesson } from '../../../app/use-lesson.ts';

/** Skills known so far: of the lesson, its series and the cue library. */
function useSkills(): string[] {
  const { lesson } = useOpenLesson();
  const series = api.useSeriesQuery().data;
  const cues = api.useCueLibraryQuery().data;
  return useMemo(() => {
    const skills =
      series?.find(({ series: { name } }) => name === lesson.series.name)?.series.skills ?? [];
    const names = [
      ...skills.map(({ name }) => name),
      ...blocksOf(lesson).map(({ skill }) => skill),
      ...(cues ?? []).map(({ skill }) => skill),
    ];
    return [...new Set(names.map((name) => name.trim()).filter((name) => name !== ''))];
  }, [series, cues, lesson]);
}

/** The skill a block trains, as written so far or new. */
export function SkillField({
  value,
  onChange,
}: {
  value: string;
  onChange: (skill: string) => void;
}) {
  const skills = useSkills();
  const mark = useUndoMark();
  return (
    <Autocomplete
      freeSolo
      options={skills}
      inputValue={value}
      value={value}
      onInputChange={(_event, text, reason) =>
        reason !== 'reset' && onChange(text.slice(0, LIMITS.title))
      }
      onChange={(_event, text) => onChange(text ?? '')}
      sx={{ width: 170 }}
      renderInput={(params) => (
        <TextField
          {...params}
          label={teacherText('common.skill')}
          slotProps={{ ...params.slotProps, htmlInput: { ...params.slotProps.htmlInput, ...mark } }}
        />
      )}
    />
  );
}
