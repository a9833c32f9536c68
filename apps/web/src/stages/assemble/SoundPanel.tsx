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
import {
  LIMITS,
  noiseChoices,
  pacerChoices,
  pacerVoices,
  type Finish,
  valueName,
} from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { edit } from '../../app/lesson-slice.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useLessonPart, useMaterials, useOpenLesson } from '../../app/use-lesson.ts';
import { ChoiceField, TextLine, WholeField, named } from '../../ui/fields.tsx';
import { FileButton } from '../../ui/FileButton.tsx';
import { ToggleChip } from '../../ui/ToggleChip.tsx';
import { uploadMusic } from '../film/uploads.ts';

type Sound = Finish['sound'];
const voiceNames = {
  clock: teacherText('assemble.the-clock'),
  count: teacherText('assemble.count'),
  sides: teacherText('assemble.changes-side'),
  calls: teacherText('assemble.called-out-words'),
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
          label={teacherText('assemble.music-under-voice')}
          accept="audio/*"
          onFile={(file) => void send(file)}
        />
      )}
      {music && (
        <>
          <Typography variant="body2" data-testid="music">
            {teacherText('assemble.music', { n: take?.name ?? teacherText('assemble.file-gone') })}
            {take &&
              take.state !== 'ready' &&
              take.state !== 'failed' &&
              `, ${teacherText('assemble.being-made-ready')}`}
          </Typography>
          {take?.state === 'failed' && <Alert severity="error">{take.fault}</Alert>}
          <TextLine
            label={teacherText('assemble.who-made-what-right')}
            value={music.licence}
            most={LIMITS.line}
            onChange={(licence) => onChange({ ...music, licence }, true)}
          />
          {music.licence.trim() === '' && (
            <Alert severity="warning">{teacherText('assemble.music-licence')}</Alert>
          )}
          <Stack direction="row" sx={{ gap: 1, alignItems: 'center' }}>
            <WholeField
              label={teacherText('assemble.under-voice-db')}
              value={music.underDb}
              range={LIMITS.underDb}
              onChange={(underDb) => onChange({ ...music, underDb }, true)}
              sx={{ width: 150 }}
            />
            <Button onClick={() => onChange(null)}>{teacherText('assemble.no-music')}</Button>
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
          {teacherText('assemble.sound-lesson')}
        </Typography>
      </AccordionSummary>
      <AccordionDetails>
        <Stack spacing={1.5}>
          <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 1.25 }}>
            <WholeField
              label={teacherText('assemble.loudness-lufs')}
              value={sound.lufs}
              range={LIMITS.lufs}
              onChange={(lufs) => set({ lufs })}
              sx={{ width: 130 }}
            />
            <ChoiceField
              label={teacherText('assemble.noise')}
              value={sound.noise}
              choices={named(noiseChoices, valueName)}
              onChange={(noise) => set({ noise })}
            />
            <ChoiceField
              label={teacherText('assemble.pacer')}
              value={sound.pacer}
              choices={named(pacerChoices, valueName)}
              onChange={(pacer) => set({ pacer })}
              sx={{ width: 180 }}
            />
          </Stack>
          <FormControlLabel
            label={teacherText('assemble.low-cut')}
            control={
              <Switch checked={sound.lowCut} onChange={(_event, lowCut) => set({ lowCut })} />
            }
          />
          {sound.pacer !== 'left out' && (
            <Stack
              direction="row"
              useFlexGap
              role="group"
              aria-label={teacherText('assemble.heard')}
              sx={{ flexWrap: 'wrap', gap: 0.75, alignItems: 'center' }}
            >
              <Typography variant="body2">{teacherText('assemble.heard')}</Typography>
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
            {teacherText('assemble.voice-key')}
          </Typography>
        </Stack>
      </AccordionDetails>
    </Accordion>
  );
}
