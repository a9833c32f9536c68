import { LIMITS, partNames, type ProgressRule, type Series } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { Autocomplete, Box, TextField } from '@mui/material';
import { useState } from 'react';
import { makeId } from '../../app/ids.ts';
import { ChoiceField, TextLine, WholeField } from '../../ui/fields.tsx';
import { Rows } from '../../ui/Rows.tsx';
import { Growth } from './Growth.tsx';
import { makeRule, readValues, valuesText, whatOf, whats } from './rules.ts';
import type { ChangeSeries } from './use-series.ts';

function Values({
  rule,
  onChange,
}: {
  rule: ProgressRule;
  onChange: (values: ProgressRule['values']) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const isWrong = typed !== null && readValues(rule, typed) === null;
  return (
    <TextField
      label="One after another"
      value={typed ?? valuesText(rule)}
      error={isWrong}
      helperText={
        isWrong
          ? rule.of === 'level'
            ? 'Write easier, as written or harder, with commas between.'
            : rule.of === 'kit'
              ? teacherText('progress.kit-fault')
              : 'Write the values with commas between: 30, 35, 40.'
          : undefined
      }
      onChange={(event) => {
        setTyped(event.target.value);
        const values = readValues(rule, event.target.value);
        if (values) onChange(values);
      }}
      onBlur={() => setTyped(null)}
    />
  );
}

/** What grows from week to week. */
export function Progression({ series, change }: { series: Series; change: ChangeSeries }) {
  return (
    <Rows
      title="Progression"
      addLabel="+ What grows"
      most={12}
      onAdd={() =>
        change('Add a progression', (d) => void d.progression.push(makeRule('workMs', makeId())))
      }
      onRemove={(i) => change('Remove a progression', (d) => void d.progression.splice(i, 1))}
      rows={series.progression.map((rule, i) => ({
        key: rule.id,
        name: `progression ${i + 1}`,
        fields: (
          <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5, flex: 1 }}>
            <ChoiceField
              label="What"
              value={whatOf(rule)}
              choices={whats}
              onChange={(what) =>
                change(
                  `What of progression ${i + 1}`,
                  (d) => void (d.progression[i] = makeRule(what, rule.id)),
                )
              }
            />
            <Box sx={{ flex: '1 1 220px' }}>
              <Values
                rule={rule}
                onChange={(values) =>
                  change(
                    `Values of progression ${i + 1}`,
                    (d) => void Object.assign(d.progression[i] ?? {}, { values }),
                  )
                }
              />
            </Box>
            <WholeField
              label="Weeks each"
              value={rule.everyWeeks}
              range={{ min: 1, max: 12 }}
              sx={{ width: 110 }}
              onChange={(n) =>
                change(
                  `Weeks of progression ${i + 1}`,
                  (d) => void Object.assign(d.progression[i] ?? {}, { everyWeeks: n }),
                )
              }
            />
            {rule.of === 'figure' && (
              <Growth
                rule={rule}
                onChange={(label, recipe) =>
                  change(`${label} of progression ${i + 1}`, (d) => {
                    const draft = d.progression[i];
                    if (draft?.of === 'figure') recipe(draft);
                  })
                }
              />
            )}
            {'parts' in rule && (
              <Autocomplete
                multiple
                disableCloseOnSelect
                limitTags={3}
                options={partNames.map(([part]) => part)}
                getOptionLabel={(part) => partNames.find(([id]) => id === part)?.[1] ?? part}
                value={rule.parts}
                onChange={(_event, parts) =>
                  parts.length > 0 &&
                  change(
                    `Parts of progression ${i + 1}`,
                    (d) => void Object.assign(d.progression[i] ?? {}, { parts }),
                  )
                }
                sx={{ flex: '1 1 280px' }}
                renderInput={(params) => <TextField {...params} label="In blocks of the parts" />}
              />
            )}
          </Box>
        ),
      }))}
    />
  );
}

/** The skills of the series, and from which week each stage holds. */
export function Skills({
  series,
  change,
  stages,
}: {
  series: Series;
  change: ChangeSeries;
  stages: readonly string[];
}) {
  return (
    <Rows
      title="Skills and how far each is learnt"
      addLabel="+ Skill"
      most={40}
      onAdd={() =>
        change(
          'Add a skill',
          (d) => void d.skills.push({ id: makeId(), name: 'New skill', from: [1] }),
        )
      }
      onRemove={(i) => change('Remove a skill', (d) => void d.skills.splice(i, 1))}
      rows={series.skills.map(({ id, name, from }, i) => ({
        key: id,
        name,
        fields: (
          <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5, flex: 1 }}>
            <TextLine
              label={`Skill ${i + 1}`}
              value={name}
              most={LIMITS.title}
              required
              sx={{ flex: '1 1 200px', maxWidth: 280 }}
              onChange={(text) =>
                change(`Skill ${i + 1}`, (d) => void (d.skills[i] && (d.skills[i].name = text)))
              }
            />
            {stages.map((stage, s) => (
              <WholeField
                key={stage}
                label={`${stage[0]?.toUpperCase()}${stage.slice(1)} from week`}
                value={from[s] ?? 0}
                range={{ min: 0, max: LIMITS.weeks }}
                helper={from[s] ? '' : '0: not here'}
                sx={{ width: 170 }}
                onChange={(week) =>
                  change(`${stage} of skill ${i + 1}`, (d) => {
                    const aims = d.skills[i]?.from;
                    if (!aims) return;
                    while (aims.length <= s) aims.push(null);
                    aims[s] = week === 0 ? null : week;
                  })
                }
              />
            ))}
          </Box>
        ),
      }))}
    />
  );
}
