import { Checkbox, FormControlLabel, FormGroup, Paper, Stack } from '@mui/material';
import { PRACTICE, type Devices } from '../../../record/cameras.ts';
import { ChoiceField, same } from '../../../ui/fields.tsx';
import { bodies, mishaps, rooms, type FilmPreferences } from './preferences.ts';

interface FilmOptionsPanelProps {
  preferences: FilmPreferences;
  devices: Devices;
  onChange: (part: Partial<FilmPreferences>) => void;
}

const USUAL = 'usual';
const switches = [
  ['speaks', 'The pacer speaks its counts'],
  ['recordsPacer', 'The pacer is heard in the recording (otherwise by ear only)'],
  ['marksForOthers', 'Play the sync marks aloud, for another camera or phone'],
  ['handsFree', 'Hands-free: the next block starts by itself'],
  ['watches', 'Watch the picture and tell me where to stand'],
  ['mirrored', 'Show me mirrored (the recording never is)'],
] as const satisfies readonly (readonly [keyof FilmPreferences, string])[];

/** Cameras, microphone and manner of this device. */
export function FilmOptionsPanel({ preferences, devices, onChange }: FilmOptionsPanelProps) {
  const name = ({ label }: MediaDeviceInfo, i: number, what: string) => label || `${what} ${i + 1}`;
  const cameras = [
    ...devices.cameras.map((device, i) => [device.deviceId, name(device, i, 'Camera')] as const),
    [PRACTICE, 'Practice camera (drawn performer)'] as const,
  ];
  const first = preferences.camera ?? cameras[0]?.[0] ?? PRACTICE;
  const others = cameras.filter(([id]) => id !== first && id !== PRACTICE);
  return (
    <Paper
      sx={{ p: 2, overflowY: 'auto', minHeight: 0 }}
      aria-label="Settings of this device"
      component="section"
    >
      <Stack direction="row" useFlexGap sx={{ gap: 2, flexWrap: 'wrap', mb: 1 }}>
        <ChoiceField
          label="Camera"
          value={first}
          choices={cameras}
          onChange={(camera) => onChange({ camera })}
          sx={{ width: 280 }}
        />
        <ChoiceField
          label="Microphone"
          value={preferences.microphone || USUAL}
          choices={[
            [USUAL, 'The usual one'],
            ...devices.microphones
              .filter(({ deviceId }) => deviceId !== '' && deviceId !== 'default')
              .map((device, i) => [device.deviceId, name(device, i, 'Microphone')] as const),
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
            label="Performer"
            value={preferences.body}
            choices={same(bodies)}
            onChange={(body) => onChange({ body })}
            sx={{ width: 140 }}
          />
          <ChoiceField
            label="Room"
            value={preferences.room}
            choices={same(rooms)}
            onChange={(room) => onChange({ room })}
            sx={{ width: 140 }}
          />
          <ChoiceField
            label="Seen from"
            value={preferences.view}
            choices={[
              ['front', 'the front'],
              ['side', 'the side'],
            ]}
            onChange={(view) => onChange({ view })}
            sx={{ width: 130 }}
          />
          <ChoiceField
            label="What goes wrong"
            value={preferences.mishap}
            choices={same(mishaps)}
            onChange={(mishap) => onChange({ mishap })}
            sx={{ width: 210 }}
          />
        </Stack>
      )}
      <FormGroup>
        {others.map(([id, label]) => (
          <FormControlLabel
            key={id}
            label={`Film with ${label} at the same time`}
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
