import { Accordion, AccordionDetails, AccordionSummary, Alert, FormControlLabel, Stack, Switch, TextField, Typography } from '@mui/material';
import ExpandMoreIcon from '@mui/icons-material/ExpandMore';
import { clockStyles, LIMITS, noiseChoices, pacerChoices, themes, viewingProfiles, type Finish } from '@zest/core/lesson';
import { arcMinutes, inkOf, LEAST_ARCMIN, MIN_TEXT } from '@zest/core/overlay';
import { edit } from '../../app/lesson-slice.ts';
import { useAppDispatch } from '../../app/store.ts';
import { ChoiceField, WholeField } from '../../ui/fields.tsx';

const same = <const T extends string>(values: readonly T[]) => values.map((value) => [value, value] as const);
const clockNames = { ring: 'a ring', bar: 'a bar', digits: 'digits alone' } as const;

/** How the whole lesson looks and sounds, in one place. */
export function FinishPanel({ finish }: { finish: Finish }) {
  const dispatch = useAppDispatch();
  const { look, sound } = finish;
  const setLook = (part: Partial<Finish['look']>) => dispatch(edit(`Look: ${Object.keys(part).join()}`, (draft) => void Object.assign(draft.finish.look, part), 'accent' in part));
  const setSound = (part: Partial<Finish['sound']>) => dispatch(edit(`Sound: ${Object.keys(part).join()}`, (draft) => void Object.assign(draft.finish.sound, part), 'lufs' in part));
  const smallest = arcMinutes(MIN_TEXT, look.profile);
  const shown = inkOf(look).accent;
  return (
    <Accordion disableGutters variant="outlined">
      <AccordionSummary expandIcon={<ExpandMoreIcon />}>
        <Typography component="h3" sx={{ fontSize: '1.05rem', fontWeight: 700 }}>
          Look and sound of the lesson
        </Typography>
      </AccordionSummary>
      <AccordionDetails>
        <Stack spacing={1.5}>
          <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 1.25 }}>
            <ChoiceField label="Clock" value={look.clock} choices={clockStyles.map((one) => [one, clockNames[one]] as const)} onChange={(clock) => setLook({ clock })} sx={{ width: 140 }} />
            <ChoiceField label="Colours" value={look.theme} choices={same(themes)} onChange={(theme) => setLook({ theme })} sx={{ width: 150 }} />
            <TextField type="color" label="Your colour" value={look.accent} onChange={(event) => setLook({ accent: event.target.value.toLowerCase() })} sx={{ width: 110 }} />
          </Stack>
          {shown !== look.accent && <Alert severity="info">Your colour cannot be read on its ground, so {shown} is shown, as near to it as can be read.</Alert>}
          <FormControlLabel label="Calm: the clock changes once a second, and only what is needed is said" control={<Switch checked={look.calm} onChange={(_event, calm) => setLook({ calm })} />} />
          <ChoiceField label="Students look at a" value={look.profile} choices={same(viewingProfiles)} onChange={(profile) => setLook({ profile })} />
          <Typography variant="body2" data-testid="legible">
            The smallest words look {smallest.toFixed(0)} minutes of arc high from there.
          </Typography>
          {smallest < LEAST_ARCMIN && (
            <Alert severity="warning">
              Less than {LEAST_ARCMIN} minutes cannot be read well (ISO 9241-303). Ask for a larger screen or a shorter distance; digits and counts are larger than the smallest words.
            </Alert>
          )}
          <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 1.25 }}>
            <WholeField label="Loudness, LUFS" value={sound.lufs} range={LIMITS.lufs} onChange={(lufs) => setSound({ lufs })} sx={{ width: 130 }} />
            <ChoiceField label="Steady noise is taken off" value={sound.noise} choices={same(noiseChoices)} onChange={(noise) => setSound({ noise })} />
            <ChoiceField label="Pacer’s tones" value={sound.pacer} choices={same(pacerChoices)} onChange={(pacer) => setSound({ pacer })} sx={{ width: 150 }} />
          </Stack>
          <FormControlLabel label="Cut rumble and wind under 80 Hz" control={<Switch checked={sound.lowCut} onChange={(_event, lowCut) => setSound({ lowCut })} />} />
          <Typography variant="body2" color="text.secondary">
            Sound is finished in the export; the preview plays it as it was recorded.
          </Typography>
        </Stack>
      </AccordionDetails>
    </Accordion>
  );
}
