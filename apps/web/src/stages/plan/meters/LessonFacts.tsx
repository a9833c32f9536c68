import { Stack, Typography } from '@mui/material';
import { lessonParts, LIMITS, partName, type Lesson, type LessonPart } from '@zest/core/lesson';
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
      aria-label={teacherText('meter.parts-my-lessons-have')}
    >
      <Typography>{teacherText('meter.my-lessons-have')}</Typography>
      {lessonParts
        .filter((part) => part !== 'other')
        .map((part) => {
          const isOn = parts.includes(part);
          return (
            <ToggleChip
              key={part}
              label={partName(part)}
              isOn={isOn}
              // In the usual order, whichever is clicked first.
              onToggle={() =>
                onChange(lessonParts.filter((one) => (one === part ? !isOn : parts.includes(one))))
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
        label={teacherText('meter.age-from')}
        value={audience.ageFrom}
        range={{ ...LIMITS.age, max: audience.ageTo }}
        onChange={(age) =>
          set(teacherText('meter.age-from'), (d) => void (d.audience.ageFrom = age))
        }
      />
      <WholeField
        label={teacherText('meter.age')}
        value={audience.ageTo}
        range={{ ...LIMITS.age, min: audience.ageFrom }}
        onChange={(age) => set(teacherText('meter.age'), (d) => void (d.audience.ageTo = age))}
      />
      <WholeField
        label={teacherText('meter.words-minute')}
        value={settings.speechWpm}
        range={LIMITS.speechWpm}
        onChange={(wpm) =>
          set(teacherText('meter.words-minute'), (d) => void (d.settings.speechWpm = wpm))
        }
      />
      <ChoiceField
        label={teacherText('meter.last-rest')}
        value={settings.lastRest}
        choices={[
          ['dropped', teacherText('meter.ends-last-work')],
          ['counted', teacherText('meter.counts-like-every-rest')],
        ]}
        onChange={(school) =>
          set(teacherText('meter.last-rest'), (d) => void (d.settings.lastRest = school))
        }
      />
      <ChoiceField
        label={teacherText('meter.left-right')}
        value={settings.sides}
        choices={[
          ['performer', teacherText('meter.name-performer-s-side')],
          ['mirrored', teacherText('meter.mirror-picture')],
        ]}
        sx={{ width: 240 }}
        onChange={(school) =>
          set(teacherText('meter.left-right'), (d) => void (d.settings.sides = school))
        }
      />
      <ChoiceField
        label={teacherText('meter.distances')}
        value={settings.units}
        choices={[
          ['metric', teacherText('meter.metres')],
          ['imperial', teacherText('meter.feet')],
        ]}
        sx={{ width: 130 }}
        onChange={(units) =>
          set(teacherText('meter.distances'), (d) => void (d.settings.units = units))
        }
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
        label={teacherText('meter.title')}
        value={lesson.title}
        most={LIMITS.title}
        required
        onChange={(text) => set(teacherText('meter.title'), (d) => void (d.title = text))}
      />
      <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 2 }}>
        <TextLine
          label={teacherText('meter.series')}
          value={series.name}
          most={LIMITS.title}
          sx={{ width: 260 }}
          onChange={(text) => set(teacherText('meter.series'), (d) => void (d.series.name = text))}
        />
        <ChoiceField
          label={teacherText('meter.form-week')}
          value={series.level}
          choices={levelNames}
          sx={{ width: 150 }}
          onChange={(level) =>
            set(teacherText('meter.form-week'), (d) => void (d.series.level = level))
          }
        />
        <AimField
          label={teacherText('facts.week')}
          value={series.week}
          most={LIMITS.weeks}
          onChange={(week) => set(teacherText('meter.week'), (d) => void (d.series.week = week))}
        />
      </Stack>
      <SeriesFacts lesson={shown} set={set} />
      <TextLine
        label={teacherText('meter.outcome')}
        value={lesson.outcome}
        most={LIMITS.line}
        helper={teacherText('meter.one-sentence-can-seen')}
        onChange={(text) => set(teacherText('meter.outcome'), (d) => void (d.outcome = text))}
      />
      <Conventions lesson={lesson} set={set} />
      <SpaceFields
        title={teacherText('meter.student-s-room')}
        space={lesson.room}
        units={settings.units}
        onToggle={(room) => set(teacherText('meter.student-s-room'), (d) => void (d.room = room))}
        onChange={(side, cm) => set(side, (d) => void (d.room && (d.room[side] = cm)))}
      />
      <OwnParts
        lesson={lesson}
        onChange={(parts) =>
          set(teacherText('meter.parts-lesson'), (d) => void (d.settings.parts = parts))
        }
      />
    </Stack>
  );
}
