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
import { useState } from 'react';
import { edit } from '../../../app/lesson-slice.ts';
import { useAppDispatch } from '../../../app/store.ts';
import { useBlockNow, useLessonPart, useOpenLesson } from '../../../app/use-lesson.ts';
import { ChoiceField, LengthField, LengthOfSpaceField, WholeField } from '../../../ui/fields.tsx';
import { SpaceFields } from '../../../ui/SpaceFields.tsx';
import { Calibrate } from './Calibrate.tsx';
import { FramingDrawing } from './FramingDrawing.tsx';
import { ShotList } from './ShotList.tsx';

const ROOM = { widthCm: 400, depthCm: 400, heightCm: 250 };
const orientationNames: Record<Filming['orientation'], string> = {
  landscape: 'lying',
  portrait: 'upright',
};
const safeNames: Record<Filming['safe'], string> = {
  whole: 'all of it',
  action: '93 % (action)',
  graphics: '90 % (graphics)',
};

/** What the lens is called: a preset by its name. */
const lensName = (lensMm: number) =>
  lensPresets.find((preset) => preset.lensMm === lensMm)?.name ?? 'Measured';

function FilmingFields({
  onChange,
}: {
  onChange: (label: string, change: (filming: Filming) => void) => void;
}) {
  const filming = useLessonPart((lesson) => lesson.filming);
  const settings = useLessonPart((lesson) => lesson.settings);
  const lenses: [string, string][] = lensPresets.map(({ lensMm, name }) => [
    String(lensMm),
    `${name} (${lensMm} mm)`,
  ]);
  if (!lensPresets.some(({ lensMm }) => lensMm === filming.lensMm))
    lenses.push([String(filming.lensMm), `Measured (${filming.lensMm} mm)`]);
  return (
    <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 1.5, alignItems: 'start' }}>
      <ChoiceField
        label="Camera"
        value={String(filming.lensMm)}
        choices={lenses}
        onChange={(mm) => onChange('Lens', (f) => void (f.lensMm = Number(mm)))}
        sx={{ width: 290 }}
      />
      <Calibrate
        onMeasured={(lensMm) => onChange('Lens', (f) => void (f.lensMm = lensMm))}
        units={settings.units}
      />
      <ChoiceField
        label="Held"
        value={filming.orientation}
        choices={orientations.map((o) => [o, orientationNames[o]])}
        onChange={(o) => onChange('Orientation', (f) => void (f.orientation = o))}
        sx={{ width: 120 }}
      />
      <ChoiceField
        label="Safe part of the picture"
        value={filming.safe}
        choices={safeAreas.map((s) => [s, safeNames[s]])}
        onChange={(s) => onChange('Safe area', (f) => void (f.safe = s))}
        sx={{ width: 190 }}
      />
      <LengthOfSpaceField
        units={settings.units}
        label="Performer’s height"
        value={filming.performerCm}
        range={LIMITS.performerCm}
        onChange={(cm) => onChange('Performer’s height', (f) => void (f.performerCm = cm))}
      />
      {filming.cameraCm === null ? (
        <Button onClick={() => onChange('Camera height', (f) => void (f.cameraCm = 75))}>
          The camera stands on something
        </Button>
      ) : (
        <LengthOfSpaceField
          units={settings.units}
          label="Camera height"
          value={filming.cameraCm}
          range={LIMITS.cameraCm}
          onChange={(cm) => onChange('Camera height', (f) => void (f.cameraCm = cm))}
          end={
            <Button
              size="small"
              onClick={() => onChange('Camera height', (f) => void (f.cameraCm = null))}
            >
              Free
            </Button>
          }
          sx={{ width: 190 }}
        />
      )}
      <WholeField
        label="Takes a shot needs"
        value={filming.takesEach}
        range={LIMITS.takesEach}
        onChange={(n) => onChange('Takes', (f) => void (f.takesEach = n))}
      />
      <LengthField
        label="Time to get into place"
        value={filming.settleMs}
        range={LIMITS.settleMs}
        onChange={(ms) => onChange('Time to get into place', (f) => void (f.settleMs = ms))}
        sx={{ width: 180 }}
      />
      <SpaceFields
        title="Filming room"
        space={filming.room}
        units={settings.units}
        onToggle={(room) => onChange('Filming room', (f) => void (f.room = room && ROOM))}
        onChange={(side, cm) =>
          onChange('Filming room', (f) => void (f.room && (f.room[side] = cm)))
        }
      />
    </Stack>
  );
}

function remedyText(remedy: Remedy, shown: (cm: number) => string): string {
  const at = `the camera then stands ${shown(remedy.placing.camera.distanceCm)} away`;
  switch (remedy.kind) {
    case 'turn-phone':
      return `Hold the camera ${orientationNames[remedy.orientation]}: ${at}.`;
    case 'wider-lens':
      return `Use a wider lens (${lensName(remedy.lensMm)}, ${remedy.lensMm} mm): ${at}.`;
    case 'turn-move':
      return `Turn the move and film it from the ${remedy.angle}: ${at}.`;
    case 'smaller-travel':
      return `Bring marks and travel in to ${remedy.percent} %: ${at}.`;
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
}: {
  framing: Framing;
  lesson: Lesson;
  onRemedy: (remedy: Remedy) => void;
}) {
  const shown = (cm: number) => spaceText(Math.round(cm), lesson.settings.units);
  const { placing, missing, remedies, room } = framing;
  if (!placing)
    return (
      <Alert severity="warning">
        No distance shows all of this move with this lens. Choose a wider one, or bring marks and
        travel nearer to the performer.
      </Alert>
    );
  const { camera, tape } = placing;
  const lacks = [
    missing.depthCm ? `${shown(missing.depthCm)} of depth` : '',
    missing.widthCm ? `${shown(missing.widthCm)} of width` : '',
    missing.heightCm ? `${shown(missing.heightCm)} of height` : '',
  ].filter((text) => text !== '');
  return (
    <Stack spacing={1.5}>
      <Typography
        sx={{ fontSize: '1.7rem', fontWeight: 700, lineHeight: 1.25 }}
        data-testid="camera-place"
      >
        Camera {shown(camera.distanceCm)} away, {shown(camera.heightCm)} high
        {Math.abs(camera.tiltDeg) >= 1
          ? `, tilted ${Math.abs(Math.round(camera.tiltDeg))}° ${camera.tiltDeg > 0 ? 'up' : 'down'}`
          : ', level'}
        {Math.abs(camera.offsetCm) >= 5 &&
          `, ${shown(Math.abs(camera.offsetCm))} to the ${camera.offsetCm > 0 ? 'right' : 'left'}`}
      </Typography>
      <Typography>
        {shown(placing.floorWidthCm)} of floor are in the safe picture. Tape {shown(tape.leftCm)} to
        the left and {shown(tape.rightCm)} to the right of the performer’s place, as the camera sees
        it; up to {shown(tape.nearCm)} towards the camera everything stays in. It takes{' '}
        {shown(placing.depthCm)} of depth in all and shows up to {shown(room.topCm)} of height.
      </Typography>
      {lesson.filming.room && lacks.length === 0 && (
        <Alert severity="success">Your room is enough.</Alert>
      )}
      {lacks.length > 0 && (
        <Alert severity="warning">
          Your room lacks {lacks.join(' and ')}.
          {remedies.length === 0 && missing.depthCm
            ? ' No single change makes it fit: try two of them, or another room.'
            : ''}
        </Alert>
      )}
      {remedies.map((remedy) => (
        <Stack key={remedy.kind} direction="row" sx={{ gap: 1, alignItems: 'center' }}>
          <Button variant="outlined" onClick={() => onRemedy(remedy)}>
            Do it
          </Button>
          <Typography>{remedyText(remedy, shown)}</Typography>
        </Stack>
      ))}
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
  return (
    <Stack spacing={2}>
      <Paper variant="outlined" sx={{ p: 2 }} component="section" aria-label="Camera and room">
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
            aria-label="Shots of the block"
          >
            <Stack spacing={2}>
              <Verdict
                framing={framing}
                lesson={lesson}
                onRemedy={(remedy) =>
                  dispatch(edit('Framing', (draft) => applyRemedy(draft, block, shotIndex, remedy)))
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
            />
          </Paper>
        </Box>
      ) : (
        <Typography color="text.secondary">
          A card is drawn by the program and needs no filming.
        </Typography>
      )}
    </Stack>
  );
}
