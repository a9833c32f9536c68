import { Alert, Box, Button, Paper, Stack, Typography } from '@mui/material';
import { frameShot, lensPresets, shotsOf, type Framing, type Remedy } from '@zest/core/framing';
import {
  changeBlock,
  LIMITS,
  orientations,
  safeAreas,
  spaceText,
  type Block,
  type Filming,
  type Lesson,
  type Shot,
} from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { edit } from '../../../app/lesson-slice.ts';
import { useAppDispatch } from '../../../app/store.ts';
import { useBlockNow, useLessonPart, useOpenLesson } from '../../../app/use-lesson.ts';
import { ChoiceField, LengthField, LengthOfSpaceField, WholeField } from '../../../ui/fields.tsx';
import { setOrLeave } from '../../../ui/set-or-leave.ts';
import { SpaceFields } from '../../../ui/SpaceFields.tsx';
import { Calibrate } from './Calibrate.tsx';
import { FramingDrawing } from './FramingDrawing.tsx';
import { ShotList } from './ShotList.tsx';

const ROOM = { widthCm: 400, depthCm: 400, heightCm: 250 };
const orientationNames: Record<Filming['orientation'], string> = {
  landscape: teacherText('setup.lying'),
  portrait: teacherText('setup.upright'),
};
const safeNames: Record<Filming['safe'], string> = {
  whole: teacherText('setup.all'),
  action: '93 % (action)',
  graphics: teacherText('setup.90-graphics'),
};

/** What the lens is called: a preset by its name. */
const lensName = (lensMm: number) =>
  teacherText(lensPresets.find((preset) => preset.lensMm === lensMm)?.word ?? 'setup.measured');

interface FieldsProps {
  onChange: (label: string, change: (filming: Filming) => void) => void;
}

/** The lens; or, where the distance is set and the lens follows, that. */
function LensOrDistance({ onChange }: FieldsProps) {
  const filming = useLessonPart((lesson) => lesson.filming);
  const settings = useLessonPart((lesson) => lesson.settings);
  const setLens = (lensMm: number) =>
    onChange(teacherText('setup.lens'), (f) => void (f.lensMm = lensMm));
  const setAway = (cm: number | undefined) =>
    onChange(teacherText('setup.distance-from-camera'), (f) => setOrLeave(f, 'awayCm', cm));
  const lenses: [string, string][] = lensPresets.map(({ lensMm, word }) => [
    String(lensMm),
    teacherText('setup.mm', { name: teacherText(word), lensMm }),
  ]);
  if (!lensPresets.some(({ lensMm }) => lensMm === filming.lensMm))
    lenses.push([
      String(filming.lensMm),
      teacherText('setup.measured-mm', { lensMm: filming.lensMm }),
    ]);
  return filming.awayCm === undefined ? (
    <>
      <ChoiceField
        label={teacherText('setup.camera')}
        value={String(filming.lensMm)}
        choices={lenses}
        onChange={(mm) => setLens(Number(mm))}
        sx={{ width: 290 }}
      />
      <Calibrate onMeasured={setLens} units={settings.units} />
    </>
  ) : (
    <LengthOfSpaceField
      units={settings.units}
      label={teacherText('setup.distance-from-camera')}
      value={filming.awayCm}
      range={LIMITS.cameraAwayCm}
      onChange={setAway}
      end={
        <Button size="small" onClick={() => setAway(undefined)}>
          {teacherText('setup.free')}
        </Button>
      }
      sx={{ width: 220 }}
    />
  );
}

/** How high the camera stands: as the move needs it, or as what it stands on. */
function CameraHeight({ onChange }: FieldsProps) {
  const { cameraCm } = useLessonPart((lesson) => lesson.filming);
  const settings = useLessonPart((lesson) => lesson.settings);
  return cameraCm === null ? (
    <Button
      onClick={() => onChange(teacherText('setup.camera-height'), (f) => void (f.cameraCm = 75))}
    >
      {teacherText('setup.camera-stands-something')}
    </Button>
  ) : (
    <LengthOfSpaceField
      units={settings.units}
      label={teacherText('setup.camera-height')}
      value={cameraCm}
      range={LIMITS.cameraCm}
      onChange={(cm) => onChange(teacherText('setup.camera-height'), (f) => void (f.cameraCm = cm))}
      end={
        <Button
          size="small"
          onClick={() =>
            onChange(teacherText('setup.camera-height'), (f) => void (f.cameraCm = null))
          }
        >
          {teacherText('setup.free')}
        </Button>
      }
      sx={{ width: 190 }}
    />
  );
}

function FilmingFields({ onChange }: FieldsProps) {
  const filming = useLessonPart((lesson) => lesson.filming);
  const settings = useLessonPart((lesson) => lesson.settings);
  return (
    <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 1.5, alignItems: 'start' }}>
      <LensOrDistance onChange={onChange} />
      <ChoiceField
        label={teacherText('setup.held')}
        value={filming.orientation}
        choices={orientations.map((o) => [o, orientationNames[o]])}
        onChange={(o) =>
          onChange(teacherText('setup.orientation'), (f) => void (f.orientation = o))
        }
        sx={{ width: 120 }}
      />
      <ChoiceField
        label={teacherText('setup.safe-part-picture')}
        value={filming.safe}
        choices={safeAreas.map((s) => [s, safeNames[s]])}
        onChange={(s) => onChange(teacherText('setup.safe-area'), (f) => void (f.safe = s))}
        sx={{ width: 190 }}
      />
      <LengthOfSpaceField
        units={settings.units}
        label={teacherText('setup.performer')}
        value={filming.performerCm}
        range={LIMITS.performerCm}
        onChange={(cm) =>
          onChange(teacherText('setup.performer'), (f) => void (f.performerCm = cm))
        }
      />
      <CameraHeight onChange={onChange} />
      <WholeField
        label={teacherText('setup.takes-shot-needs')}
        value={filming.takesEach}
        range={LIMITS.takesEach}
        onChange={(n) => onChange(teacherText('setup.takes'), (f) => void (f.takesEach = n))}
      />
      <LengthField
        label={teacherText('setup.time-get-into-place')}
        value={filming.settleMs}
        range={LIMITS.settleMs}
        onChange={(ms) =>
          onChange(teacherText('setup.time-get-into-place'), (f) => void (f.settleMs = ms))
        }
        sx={{ width: 180 }}
      />
      <SpaceFields
        title={teacherText('setup.room')}
        space={filming.room}
        units={settings.units}
        onToggle={(room) =>
          onChange(teacherText('setup.room'), (f) => void (f.room = room && ROOM))
        }
        onChange={(side, cm) =>
          onChange(teacherText('setup.room'), (f) => void (f.room && (f.room[side] = cm)))
        }
      />
    </Stack>
  );
}

function remedyText(remedy: Remedy, shown: (cm: number) => string): string {
  const at = teacherText('setup.camera-then-stands-away', {
    shown: shown(remedy.placing.camera.distanceCm),
  });
  switch (remedy.kind) {
    case 'turn-phone':
      return teacherText('setup.hold-camera', { value: orientationNames[remedy.orientation], at });
    case 'wider-lens':
      return teacherText('setup.use-wider-lens-mm', {
        lensName: lensName(remedy.lensMm),
        lensMm: remedy.lensMm,
        at,
      });
    case 'turn-move':
      return teacherText('setup.turn-move-film-from', { angle: remedy.angle, at });
    case 'any-distance':
      return teacherText('setup.any-distance', { at });
    case 'smaller-travel':
      return teacherText('setup.bring-marks-travel', { percent: remedy.percent, at });
  }
}

function applyRemedy(lesson: Lesson, block: Block, shotIndex: number, remedy: Remedy): void {
  switch (remedy.kind) {
    case 'turn-phone':
      lesson.filming.orientation = remedy.orientation;
      break;
    case 'wider-lens':
      lesson.filming.lensMm = remedy.lensMm;
      break;
    case 'any-distance':
      delete lesson.filming.awayCm;
      break;
    case 'turn-move':
      changeBlock(block.id, (draft) => {
        if (draft.shots.length === 0) draft.shots = shotsOf(block).map((shot) => ({ ...shot }));
        const shot = draft.shots[shotIndex];
        if (shot) shot.angle = remedy.angle;
      })(lesson);
      break;
    case 'smaller-travel':
      changeBlock(block.id, (draft) => {
        for (const mark of draft.floor) {
          mark.rightCm = Math.round((mark.rightCm * remedy.percent) / 100);
          mark.forwardCm = Math.round((mark.forwardCm * remedy.percent) / 100);
        }
      })(lesson);
      break;
  }
}

function Verdict({
  framing,
  lesson,
  onRemedy,
  onKeep,
}: {
  framing: Framing;
  lesson: Lesson;
  onRemedy: (remedy: Remedy) => void;
  /** The camera stays at this distance, in centimetres. */
  onKeep: (awayCm: number) => void;
}) {
  const shown = (cm: number) => spaceText(Math.round(cm), lesson.settings.units);
  const { placing, missing, remedies, room } = framing;
  const { awayCm } = lesson.filming;
  const ways = remedies.map((remedy) => (
    <Stack key={remedy.kind} direction="row" sx={{ gap: 1, alignItems: 'center' }}>
      <Button variant="outlined" onClick={() => onRemedy(remedy)} sx={{ flex: 'none' }}>
        {teacherText('setup.do')}
      </Button>
      <Typography>{remedyText(remedy, shown)}</Typography>
    </Stack>
  ));
  if (!placing)
    return (
      <Stack spacing={1.5}>
        <Alert severity="warning">
          {awayCm === undefined
            ? teacherText('setup.no-distance-shows-all')
            : teacherText('setup.no-lens-shows-all', { away: shown(awayCm) })}
        </Alert>
        {ways}
      </Stack>
    );
  const { camera, tape } = placing;
  const lacks = [
    missing.depthCm ? teacherText('setup.depth', { shown: shown(missing.depthCm) }) : '',
    missing.widthCm ? teacherText('setup.width', { shown: shown(missing.widthCm) }) : '',
    missing.heightCm ? teacherText('setup.height', { shown: shown(missing.heightCm) }) : '',
  ].filter((text) => text !== '');
  return (
    <Stack spacing={1.5}>
      <Typography
        sx={{ fontSize: '1.7rem', fontWeight: 700, lineHeight: 1.25 }}
        data-testid="camera-place"
      >
        {teacherText('setup.camera-place', {
          ...{ away: shown(camera.distanceCm), high: shown(camera.heightCm) },
          ...{ deg: Math.abs(Math.round(camera.tiltDeg)), aside: shown(Math.abs(camera.offsetCm)) },
          tilt: Math.abs(camera.tiltDeg) < 1 ? 'level' : camera.tiltDeg > 0 ? 'up' : 'down',
          side: Math.abs(camera.offsetCm) < 5 ? 'none' : camera.offsetCm > 0 ? 'right' : 'left',
        })}
      </Typography>
      {awayCm === undefined ? (
        <Button
          variant="outlined"
          sx={{ alignSelf: 'start' }}
          onClick={() => onKeep(Math.round(camera.distanceCm))}
        >
          {teacherText('setup.keep-distance')}
        </Button>
      ) : (
        <Typography data-testid="lens-follows">
          {teacherText('setup.lens-follows', {
            ...{ lens: lensName(placing.lensMm), lensMm: placing.lensMm },
          })}
        </Typography>
      )}
      <Typography>
        {teacherText('setup.floor-safe-picture-tape', {
          ...{ floor: shown(placing.floorWidthCm), depth: shown(placing.depthCm) },
          ...{ left: shown(tape.leftCm), right: shown(tape.rightCm), near: shown(tape.nearCm) },
          height: shown(room.topCm),
        })}
      </Typography>
      {lesson.filming.room && lacks.length === 0 && (
        <Alert severity="success">{teacherText('setup.your-room-enough')}</Alert>
      )}
      {lacks.length > 0 && (
        <Alert severity="warning">
          {teacherText('setup.your-room-lacks', { list: lacks.join(', ') })}{' '}
          {remedies.length === 0 && missing.depthCm ? teacherText('setup.no-single-change') : ''}
        </Alert>
      )}
      {ways}
    </Stack>
  );
}

/**
 * Before filming: where the camera goes for a block's shots, where the tape goes, and whether the
 * room is enough.
 */
export function SetUp({ block: shown }: { block: Block }) {
  const block = useBlockNow(shown);
  const { lesson } = useOpenLesson();
  const dispatch = useAppDispatch();
  const [at, setAt] = useState(0);
  const shots = shotsOf(block);
  const shotIndex = Math.min(at, shots.length - 1);
  const shot: Shot | undefined = shots[shotIndex];
  const change = (label: string, recipe: (filming: Filming) => void) =>
    dispatch(edit(label, (draft) => recipe(draft.filming), true));
  const framing = shot ? frameShot(block, shot, lesson.filming) : null;
  const stands = lensPresets.flatMap(({ lensMm }) => {
    const { placing } = shot
      ? frameShot(block, shot, { ...lesson.filming, lensMm, awayCm: undefined })
      : { placing: null };
    return placing ? [{ lensMm, distanceCm: placing.camera.distanceCm }] : [];
  });
  return (
    <Stack spacing={2}>
      <Paper
        variant="outlined"
        sx={{ p: 2 }}
        component="section"
        aria-label={teacherText('setup.camera-room')}
      >
        <FilmingFields onChange={change} />
      </Paper>
      {shot && framing ? (
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 1fr) minmax(0, 1fr)' },
            gap: 2,
            alignItems: 'start',
          }}
        >
          <Paper
            variant="outlined"
            sx={{ p: 2 }}
            component="section"
            aria-label={teacherText('setup.shots-block')}
          >
            <Stack spacing={2}>
              <Verdict
                framing={framing}
                lesson={lesson}
                onKeep={(awayCm) =>
                  change(
                    teacherText('setup.distance-from-camera'),
                    (filming) => void (filming.awayCm = awayCm),
                  )
                }
                onRemedy={(remedy) =>
                  dispatch(
                    edit(teacherText('setup.framing'), (draft) =>
                      applyRemedy(draft, block, shotIndex, remedy),
                    ),
                  )
                }
              />
              <ShotList block={block} shots={shots} at={shotIndex} onChoose={setAt} />
            </Stack>
          </Paper>
          <Paper variant="outlined" sx={{ p: 2 }}>
            <FramingDrawing
              framing={framing}
              filming={lesson.filming}
              units={lesson.settings.units}
              stands={stands}
              onChange={change}
            />
          </Paper>
        </Box>
      ) : (
        <Typography color="text.secondary">
          {teacherText('setup.card-drawn-program-needs')}
        </Typography>
      )}
    </Stack>
  );
}
