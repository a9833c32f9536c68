import { Stack, Typography } from '@mui/material';
import { LIMITS, partNames, type Lesson, type LessonPart } from '@zest/core/lesson';
import { edit } from '../../../app/lesson-slice.ts';
import { useAppDispatch } from '../../../app/store.ts';
import { useLessonPart, useOpenLesson } from '../../../app/use-lesson.ts';
import { AimField, ChoiceField, TextLine, WholeField } from '../../../ui/fields.tsx';
import { ToggleChip } from '../../../ui/ToggleChip.tsx';
import { SeriesFacts } from './SeriesFacts.tsx';
import { levelNames } from '../../../ui/level-names.ts';
import { SpaceFields } from '../../../ui/SpaceFields.tsx';
import { teacherText } from '@zest/core/words';

/** Which parts this teacher's lessons have; what is missing is said beside the plan. */
function OwnParts({
  lesson,
  onChange,
}: {
  lesson: Lesson;
  onChange: (parts: LessonPart[]) => void;
}) {
  const { parts } = lesson.settings;
  return (
    <Stack
      direction="row"
      useFlexGap
      sx={{ flexWrap: 'wrap', gap: 1, alignItems: 'center' }}
      role="group"
      aria-label="Parts my lessons have"
    >
      <Typography>My lessons have</Typography>
      {partNames
        .filter(([part]) => part !== 'other')
        .map(([part, name]) => {
          const isOn = parts.includes(part);
          return (
            <ToggleChip
              key={part}
              label={name}
              isOn={isOn}
              // In the usual order, whichever is clicked first.
              onToggle={() =>
                onChange(
                  partNames
                    .map(([id]) => id)
                    .filter((id) => (id === part ? !isOn : parts.includes(id))),
                )
              }
            />
          );
        })}
    </Stack>
  );
}

interface ConventionsProps {
  lesson: Lesson;
  set: (label: string, recipe: (draft: Lesson) => void) => void;
}

/** Whom the lesson is for, and what its figures and words go by. */
function Conventions({ lesson: { audience, settings }, set }: ConventionsProps) {
  return (
    <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 2 }}>
      <WholeField
        label="Age from"
        value={audience.ageFrom}
        range={{ ...LIMITS.age, max: audience.ageTo }}
        onChange={(age) => set('Age from', (d) => void (d.audience.ageFrom = age))}
      />
      <WholeField
        label="Age to"
        value={audience.ageTo}
        range={{ ...LIMITS.age, min: audience.ageFrom }}
        onChange={(age) => set('Age to', (d) => void (d.audience.ageTo = age))}
      />
      <WholeField
        label="Words a minute"
        value={settings.speechWpm}
        range={LIMITS.speechWpm}
        onChange={(wpm) => set('Words a minute', (d) => void (d.settings.speechWpm = wpm))}
      />
      <ChoiceField
        label="The last rest"
        value={settings.lastRest}
        choices={[
          ['dropped', 'ends on the last work'],
          ['counted', 'counts like every rest'],
        ]}
        onChange={(school) => set('The last rest', (d) => void (d.settings.lastRest = school))}
      />
      <ChoiceField
        label="Left and right"
        value={settings.sides}
        choices={[
          ['performer', 'name the performer’s side'],
          ['mirrored', 'mirror the picture'],
        ]}
        sx={{ width: 240 }}
        onChange={(school) => set('Left and right', (d) => void (d.settings.sides = school))}
      />
      <ChoiceField
        label="Distances"
        value={settings.units}
        choices={[
          ['metric', 'metres'],
          ['imperial', 'feet'],
        ]}
        sx={{ width: 130 }}
        onChange={(units) => set('Distances', (d) => void (d.settings.units = units))}
      />
    </Stack>
  );
}

/** Title, series, outcome, audience, target and the lesson's conventions. */
export function LessonFacts() {
  const { lesson: shown } = useOpenLesson();
  const lesson = useLessonPart((now) => now);
  const dispatch = useAppDispatch();
  const set = (label: string, recipe: (draft: Lesson) => void) =>
    dispatch(edit(label, recipe, true));
  const { settings, series } = lesson;
  return (
    <Stack spacing={2} sx={{ pt: 1 }}>
      <TextLine
        label="Title"
        value={lesson.title}
        most={LIMITS.title}
        required
        onChange={(text) => set('Title', (d) => void (d.title = text))}
      />
      <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 2 }}>
        <TextLine
          label="Series"
          value={series.name}
          most={LIMITS.title}
          sx={{ width: 260 }}
          onChange={(text) => set('Series', (d) => void (d.series.name = text))}
        />
        <ChoiceField
          label="Form this week"
          value={series.level}
          choices={levelNames}
          sx={{ width: 150 }}
          onChange={(level) => set('Form this week', (d) => void (d.series.level = level))}
        />
        <AimField
          label={teacherText('facts.week')}
          value={series.week}
          most={LIMITS.weeks}
          onChange={(week) => set('Week', (d) => void (d.series.week = week))}
        />
      </Stack>
      <SeriesFacts lesson={shown} set={set} />
      <TextLine
        label="Outcome"
        value={lesson.outcome}
        most={LIMITS.line}
        helper="One sentence that can be seen: “the disc flies flat and lands in the hoop”."
        onChange={(text) => set('Outcome', (d) => void (d.outcome = text))}
      />
      <Conventions lesson={lesson} set={set} />
      <SpaceFields
        title="Student’s room"
        space={lesson.room}
        units={settings.units}
        onToggle={(room) => set('Student’s room', (d) => void (d.room = room))}
        onChange={(side, cm) => set(side, (d) => void (d.room && (d.room[side] = cm)))}
      />
      <OwnParts
        lesson={lesson}
        onChange={(parts) => set('Parts of a lesson', (d) => void (d.settings.parts = parts))}
      />
    </Stack>
  );
}
