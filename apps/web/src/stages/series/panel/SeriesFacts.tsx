import { Stack, TextField, Typography } from '@mui/material';
import { LIMITS, SERIES_LIMITS, stageSchools, type Series, stageName } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { makeId } from '../../../app/ids.ts';
import { ChoiceField, TextLine, WholeField } from '../../../ui/fields.tsx';
import { Rows } from '../../../ui/Rows.tsx';
import { ToggleChip } from '../../../ui/ToggleChip.tsx';
import type { ChangeSeries } from '../use-series.ts';

const weekdays = [
  teacherText('series.mon'),
  teacherText('series.tue'),
  teacherText('series.wed'),
  teacherText('series.thu'),
  teacherText('series.fri'),
  teacherText('series.sat'),
  teacherText('series.sun'),
];
const timeOf = (minutes: number) =>
  `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
const today = () => new Date().toISOString().slice(0, 10);
/** Room for the label of a field that always shows something. */
const above = { inputLabel: { shrink: true } };

/** A day; empty while none is chosen. */
function DateField({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (date: string) => void;
}) {
  return (
    <TextField
      type="date"
      label={label}
      value={value}
      slotProps={above}
      sx={{ width: 170 }}
      onChange={(event) => onChange(event.target.value)}
    />
  );
}

interface SeriesFactsProps {
  series: Series;
  change: ChangeSeries;
}

function Weekdays({ series, change }: SeriesFactsProps) {
  return (
    <Stack
      direction="row"
      useFlexGap
      sx={{ gap: 0.5, flexWrap: 'wrap', alignItems: 'center' }}
      role="group"
      aria-label={teacherText('facts.days')}
    >
      <Typography>{teacherText('facts.on')}</Typography>
      {weekdays.map((day, i) => {
        const isOn = series.weekdays.includes(i + 1);
        return (
          <ToggleChip
            key={day}
            label={day}
            isOn={isOn}
            onToggle={() =>
              change(
                teacherText('series.days'),
                (d) =>
                  void (d.weekdays = isOn
                    ? d.weekdays.filter((weekday) => weekday !== i + 1)
                    : [...d.weekdays, i + 1].sort((a, b) => a - b)),
              )
            }
          />
        );
      })}
    </Stack>
  );
}

function Breaks({ series, change }: SeriesFactsProps) {
  return (
    <Rows
      title={teacherText('facts.breaks')}
      heading="h2"
      addLabel={teacherText('facts.add-break')}
      most={SERIES_LIMITS.breaks}
      onAdd={() =>
        change(
          teacherText('series.add-break'),
          (d) =>
            void d.breaks.push({
              id: makeId(),
              from: d.startsOn ?? today(),
              to: d.startsOn ?? today(),
              label: teacherText('facts.holidays'),
            }),
        )
      }
      onRemove={(i) =>
        change(teacherText('series.remove-break'), (d) => void d.breaks.splice(i, 1))
      }
      rows={series.breaks.map(({ id, from, to, label }, i) => ({
        key: id,
        name: label,
        fields: (
          <>
            <TextLine
              label={teacherText('facts.break', { n: i + 1 })}
              value={label}
              most={LIMITS.title}
              onChange={(text) =>
                change(
                  teacherText('series.break', { n: i + 1 }),
                  (d) => void (d.breaks[i] && (d.breaks[i].label = text)),
                )
              }
            />
            <DateField
              label={teacherText('facts.from')}
              value={from}
              onChange={(date) =>
                change(
                  teacherText('series.begin-break', { n: i + 1 }),
                  (d) => void (d.breaks[i] && (d.breaks[i].from = date)),
                )
              }
            />
            <DateField
              label={teacherText('facts.to')}
              value={to}
              onChange={(date) =>
                change(
                  teacherText('series.end-break', { n: i + 1 }),
                  (d) => void (d.breaks[i] && (d.breaks[i].to = date)),
                )
              }
            />
          </>
        ),
      }))}
    />
  );
}

/** What the series is, how long it runs and when. */
export function SeriesFacts({ series, change }: SeriesFactsProps) {
  return (
    <Stack spacing={2}>
      <TextLine
        label={teacherText('common.name')}
        value={series.name}
        most={LIMITS.title}
        required
        onChange={(text) => change(teacherText('common.name'), (d) => void (d.name = text))}
      />
      <TextLine
        label={teacherText('facts.what-about')}
        rows={2}
        value={series.about}
        most={LIMITS.line}
        onChange={(text) => change(teacherText('series.about'), (d) => void (d.about = text))}
      />
      <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 2, alignItems: 'center' }}>
        <WholeField
          label={teacherText('facts.weeks')}
          value={series.weeks}
          range={{ min: 1, max: LIMITS.weeks }}
          sx={{ width: 110 }}
          onChange={(weeks) => change(teacherText('series.weeks'), (d) => void (d.weeks = weeks))}
        />
        <DateField
          label={teacherText('facts.first-day')}
          value={series.startsOn ?? ''}
          onChange={(date) =>
            change(
              teacherText('series.first-day'),
              (d) => void (d.startsOn = date === '' ? null : date),
            )
          }
        />
        <TextField
          type="time"
          label={teacherText('facts.begins-at')}
          value={series.atMinutes === null ? '' : timeOf(series.atMinutes)}
          slotProps={above}
          sx={{ width: 150 }}
          onChange={(event) => {
            const [hours, minutes] = event.target.value.split(':').map(Number);
            change(
              teacherText('series.hour'),
              (d) =>
                void (d.atMinutes =
                  hours === undefined || minutes === undefined || Number.isNaN(hours + minutes)
                    ? null
                    : hours * 60 + minutes),
            );
          }}
        />
        <Weekdays series={series} change={change} />
        <ChoiceField
          label={teacherText('facts.stages')}
          value={series.stageSchool}
          choices={[
            ['three', stageSchools.three.map(stageName).join(', ')],
            ['four', stageSchools.four.map(stageName).join(', ')],
          ]}
          sx={{ width: '100%', '&&& .MuiSelect-select': { whiteSpace: 'normal' } }}
          onChange={(school) =>
            change(teacherText('series.stages'), (d) => void (d.stageSchool = school))
          }
        />
      </Stack>
      <Breaks series={series} change={change} />
    </Stack>
  );
}
