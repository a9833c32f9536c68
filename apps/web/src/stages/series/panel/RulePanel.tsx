import { Autocomplete, Stack, TextField } from '@mui/material';
import { lessonParts, partName, type ProgressRule } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { ChoiceField, ShortField, WholeField } from '../../../ui/fields.tsx';
import { makeRule, readValues, ruleName, valuesText, whatOf, whats } from '../rules.ts';
import type { ChangeSeries } from '../use-series.ts';
import { Growth } from './Growth.tsx';

const faults = {
  figure: 'progress.values-fault',
  sessions: 'progress.values-fault',
  level: 'progress.level-fault',
  kit: 'progress.kit-fault',
} as const;

interface RulePanelProps {
  rule: ProgressRule;
  change: ChangeSeries;
}

/** A progression: what grows, by which values, how it goes on, and where it holds. */
export function RulePanel({ rule, change }: RulePanelProps) {
  const { id } = rule;
  const alter = (label: string, recipe: (draft: ProgressRule) => void) =>
    change(`${ruleName(rule)}: ${label}`, (d) => {
      const now = d.progression.find((one) => one.id === id);
      if (now) recipe(now);
    });
  return (
    <Stack spacing={2}>
      <ChoiceField
        label={teacherText('progress.what')}
        value={whatOf(rule)}
        choices={whats}
        sx={{ width: '100%' }}
        onChange={(what) =>
          change(teacherText('progress.what'), (d) => {
            const at = d.progression.findIndex((one) => one.id === id);
            if (at >= 0) d.progression[at] = makeRule(what, id);
          })
        }
      />
      <ShortField
        label={teacherText('progress.values')}
        value={valuesText(rule)}
        read={(text) => {
          const values = readValues(rule, text);
          return values
            ? { value: valuesText({ ...rule, values } as ProgressRule) }
            : { fault: teacherText(faults[rule.of]) };
        }}
        onChange={(text) => {
          const values = readValues(rule, text);
          if (values) alter(teacherText('progress.values'), (d) => Object.assign(d, { values }));
        }}
      />
      <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 2 }}>
        <WholeField
          label={teacherText('progress.weeks-each')}
          value={rule.everyWeeks}
          range={{ min: 1, max: 12 }}
          sx={{ width: 110 }}
          onChange={(n) =>
            alter(teacherText('progress.weeks-each'), (d) => void (d.everyWeeks = n))
          }
        />
        {rule.of === 'figure' && (
          <Growth
            rule={rule}
            onChange={(label, recipe) => alter(label, (d) => d.of === 'figure' && recipe(d))}
          />
        )}
      </Stack>
      {'parts' in rule && (
        <Autocomplete
          multiple
          disableCloseOnSelect
          options={lessonParts}
          getOptionLabel={partName}
          value={rule.parts}
          onChange={(_event, parts) =>
            parts.length > 0 &&
            alter(teacherText('progress.parts'), (d) => void ('parts' in d && (d.parts = parts)))
          }
          renderInput={(params) => <TextField {...params} label={teacherText('progress.parts')} />}
        />
      )}
    </Stack>
  );
}
