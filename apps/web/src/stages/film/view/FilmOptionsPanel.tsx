import { Checkbox, FormControlLabel, FormGroup, Paper, Stack } from '@mui/material';
import { teacherText } from '@zest/core/words';
import { PRACTICE, type Devices } from '../../../record/cameras.ts';
import { ChoiceField, named } from '../../../ui/fields.tsx';
import { bodies, mishaps, rooms, type FilmPreferences } from './preferences.ts';

const nameOf = (value: (typeof bodies | typeof rooms | typeof mishaps)[number]) =>
  teacherText(`practice-camera.${value}`);

interface FilmOptionsPanelProps {
  preferences: FilmPreferences;
  devices: Devices;
  onChange: (part: Partial<FilmPreferences>) => void;
}

const USUAL = 'usual';
const switches = [
  ['speaks', teacherText('filming.pacer-speaks-counts')],
  ['recordsPacer', teacherText('filming.pacer-heard-recording-otherwise')],
  ['marksForOthers', teacherText('filming.play-sync-marks-aloud')],
  ['handsFree', teacherText('filming.hands-free-next-block')],
  ['watches', teacherText('filming.watch-picture-tell-me')],
  ['mirrored', teacherText('filming.show-me-mirrored-recording')],
] as const satisfies readonly (readonly [keyof FilmPreferences, string])[];

/** Cameras, microphone and manner of this device. */
export function FilmOptionsPanel({ preferences, devices, onChange }: FilmOptionsPanelProps) {
  const name = ({ label }: MediaDeviceInfo, i: number, what: string) => label || `${what} ${i + 1}`;
  const cameras = [
    ...devices.cameras.map(
      (device, i) => [device.deviceId, name(device, i, teacherText('filming.camera'))] as const,
    ),
    [PRACTICE, teacherText('filming.practice-camera-drawn-performer')] as const,
  ];
  const first = preferences.camera ?? cameras[0]?.[0] ?? PRACTICE;
  const others = cameras.filter(([id]) => id !== first && id !== PRACTICE);
  return (
    <Paper
      sx={{ p: 2, overflowY: 'auto', minHeight: 0 }}
      aria-label={teacherText('filming.settings-device')}
      component="section"
    >
      <Stack direction="row" useFlexGap sx={{ gap: 2, flexWrap: 'wrap', mb: 1 }}>
        <ChoiceField
          label={teacherText('filming.camera')}
          value={first}
          choices={cameras}
          onChange={(camera) => onChange({ camera })}
          sx={{ width: 280 }}
        />
        <ChoiceField
          label={teacherText('filming.microphone')}
          value={preferences.microphone || USUAL}
          choices={[
            [USUAL, teacherText('filming.usual-one')],
            ...devices.microphones
              .filter(({ deviceId }) => deviceId !== '' && deviceId !== 'default')
              .map(
                (device, i) =>
                  [device.deviceId, name(device, i, teacherText('filming.microphone'))] as const,
              ),
          ]}
          onChange={(microphone) =>
            onChange({ microphone: microphone === USUAL ? '' : microphone })
          }
          sx={{ width: 240 }}
        />
      </Stack>
      {first === PRACTICE && (
        <Stack direction="row" useFlexGap sx={{ gap: 2, flexWrap: 'wrap', my: 1 }}>
          <ChoiceField
            label={teacherText('filming.performer')}
            value={preferences.body}
            choices={named(bodies, nameOf)}
            onChange={(body) => onChange({ body })}
            sx={{ width: 140 }}
          />
          <ChoiceField
            label={teacherText('filming.room')}
            value={preferences.room}
            choices={named(rooms, nameOf)}
            onChange={(room) => onChange({ room })}
            sx={{ width: 140 }}
          />
          <ChoiceField
            label={teacherText('filming.seen-from')}
            value={preferences.view}
            choices={[
              ['front', teacherText('filming.front')],
              ['side', teacherText('filming.side')],
            ]}
            onChange={(view) => onChange({ view })}
            sx={{ width: 130 }}
          />
          <ChoiceField
            label={teacherText('filming.what-goes-wrong')}
            value={preferences.mishap}
            choices={named(mishaps, nameOf)}
            onChange={(mishap) => onChange({ mishap })}
            sx={{ width: 210 }}
          />
        </Stack>
      )}
      <FormGroup>
        {others.map(([id, label]) => (
          <FormControlLabel
            key={id}
            label={teacherText('filming.film-same-time', { label })}
            control={
              <Checkbox
                checked={preferences.more.includes(id)}
                onChange={(_event, on) =>
                  onChange({
                    more: on
                      ? [...preferences.more, id]
                      : preferences.more.filter((other) => other !== id),
                  })
                }
              />
            }
          />
        ))}
        {switches.map(([key, label]) => (
          <FormControlLabel
            key={key}
            label={label}
            control={
              <Checkbox
                checked={preferences[key]}
                onChange={(_event, on) => onChange({ [key]: on })}
              />
            }
          />
        ))}
      </FormGroup>
    </Paper>
  );
}
