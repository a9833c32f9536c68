import {
  Accordion,
  AccordionDetails,
  AccordionSummary,
  Alert,
  Button,
  FormControlLabel,
  Stack,
  Switch,
  Typography,
} from '@mui/material';
import ExpandMoreIcon from '@mui/icons-material/ExpandMore';
import { LIMITS, noiseChoices, pacerChoices, pacerVoices, type Finish } from '@zest/core/lesson';
import { useState } from 'react';
import { edit } from '../../app/lesson-slice.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useLessonPart, useMaterials, useOpenLesson } from '../../app/use-lesson.ts';
import { ChoiceField, TextLine, WholeField, same } from '../../ui/fields.tsx';
import { FileButton } from '../../ui/FileButton.tsx';
import { ToggleChip } from '../../ui/ToggleChip.tsx';
import { uploadMusic } from '../film/uploads.ts';

type Sound = Finish['sound'];
const voiceNames = {
  clock: 'the clock',
  count: 'the count',
  sides: 'changes of side',
  calls: 'called-out words',
} as const;

/** Music of the teacher's own under the voice, with its licence. */
function Music({
  music,
  onChange,
}: {
  music: Sound['music'];
  onChange: (music: Sound['music'], merge?: boolean) => void;
}) {
  const { id } = useOpenLesson();
  const dispatch = useAppDispatch();
  const [fault, setFault] = useState<string | null>(null);
  const take = useMaterials().find((take) => take.id === music?.takeId);
  const send = async (file: File) => {
    const sent = await dispatch(uploadMusic(id, file));
    setFault('fault' in sent ? sent.fault : null);
    if ('takeId' in sent)
      onChange({ takeId: sent.takeId, licence: '', underDb: LIMITS.underDb.min });
  };
  return (
    <Stack spacing={1.25}>
      {fault && <Alert severity="error">{fault}</Alert>}
      {!music && (
        <FileButton
          label="Music under the voice"
          accept="audio/*"
          onFile={(file) => void send(file)}
        />
      )}
      {music && (
        <>
          <Typography variant="body2" data-testid="music">
            Music: {take?.name ?? 'a file that is gone'}
            {take && take.state !== 'ready' && take.state !== 'failed' && ', being made ready'}
          </Typography>
          {take?.state === 'failed' && <Alert severity="error">{take.fault}</Alert>}
          <TextLine
            label="Who made it, and by what right it is used"
            value={music.licence}
            most={LIMITS.line}
            onChange={(licence) => onChange({ ...music, licence }, true)}
          />
          {music.licence.trim() === '' && (
            <Alert severity="warning">
              Write down the licence. Music without one may have to be taken out wherever the lesson
              is published.
            </Alert>
          )}
          <Stack direction="row" sx={{ gap: 1, alignItems: 'center' }}>
            <WholeField
              label="Under the voice, dB"
              value={music.underDb}
              range={LIMITS.underDb}
              onChange={(underDb) => onChange({ ...music, underDb }, true)}
              sx={{ width: 150 }}
            />
            <Button onClick={() => onChange(null)}>No music</Button>
          </Stack>
        </>
      )}
    </Stack>
  );
}

/** How the whole lesson sounds, in one place. */
export function SoundPanel() {
  const sound = useLessonPart(({ finish }) => finish.sound);
  const dispatch = useAppDispatch();
  const set = (part: Partial<Sound>, merge = 'lufs' in part) =>
    dispatch(
      edit(
        `Sound: ${Object.keys(part).join()}`,
        (draft) => void Object.assign(draft.finish.sound, part),
        merge,
      ),
    );
  return (
    <Accordion disableGutters variant="outlined">
      <AccordionSummary expandIcon={<ExpandMoreIcon />}>
        <Typography component="h3" sx={{ fontSize: '1.05rem', fontWeight: 700 }}>
          Sound of the lesson
        </Typography>
      </AccordionSummary>
      <AccordionDetails>
        <Stack spacing={1.5}>
          <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 1.25 }}>
            <WholeField
              label="Loudness, LUFS"
              value={sound.lufs}
              range={LIMITS.lufs}
              onChange={(lufs) => set({ lufs })}
              sx={{ width: 130 }}
            />
            <ChoiceField
              label="Steady noise is taken off"
              value={sound.noise}
              choices={same(noiseChoices)}
              onChange={(noise) => set({ noise })}
            />
            <ChoiceField
              label="The pacer"
              value={sound.pacer}
              choices={same(pacerChoices)}
              onChange={(pacer) => set({ pacer })}
              sx={{ width: 180 }}
            />
          </Stack>
          <FormControlLabel
            label="Cut rumble and wind under 80 Hz"
            control={
              <Switch checked={sound.lowCut} onChange={(_event, lowCut) => set({ lowCut })} />
            }
          />
          {sound.pacer !== 'left out' && (
            <Stack
              direction="row"
              useFlexGap
              role="group"
              aria-label="Heard for"
              sx={{ flexWrap: 'wrap', gap: 0.75, alignItems: 'center' }}
            >
              <Typography variant="body2">Heard for</Typography>
              {pacerVoices.map((voice) => {
                const isOn = sound.heard.includes(voice);
                return (
                  <ToggleChip
                    key={voice}
                    label={voiceNames[voice]}
                    isOn={isOn}
                    onToggle={() =>
                      set({
                        heard: isOn
                          ? sound.heard.filter((one) => one !== voice)
                          : [...sound.heard, voice],
                      })
                    }
                  />
                );
              })}
            </Stack>
          )}
          <Music music={sound.music} onChange={(music, merge) => set({ music }, merge)} />
          <Typography variant="body2" color="text.secondary">
            V plays the voice as it was recorded or as it will be. Pacer and music are heard in the
            export.
          </Typography>
        </Stack>
      </AccordionDetails>
    </Accordion>
  );
}
