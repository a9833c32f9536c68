import { Box, Button, Dialog, DialogContent, DialogTitle, Stack, Typography } from '@mui/material';
import { LIMITS, type CountLanguage } from '@zest/core/lesson';
import { calledCount, calledNumber } from '@zest/core/script';
import { useState } from 'react';
import { edit } from '../../app/lesson-slice.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useLessonPart } from '../../app/use-lesson.ts';
import { ChoiceField, TextLine } from '../../ui/fields.tsx';

const languages: readonly (readonly [CountLanguage, string])[] = [
  ['en', 'English'],
  ['de', 'Deutsch'],
  ['es', 'español'],
  ['fr', 'français'],
  ['it', 'italiano'],
  ['nl', 'Nederlands'],
  ['pl', 'polski'],
  ['pt', 'português'],
  ['tr', 'Türkçe'],
];
/** Numbers whose words are shown: most sets end by then. */
const SHOWN = 10;

/**
 * How numbers are called: the language, and the teacher's own word for any of them. Spoken by the
 * browser's own voice, if it has one.
 */
export function Counts() {
  const counts = useLessonPart(({ settings }) => settings.counts);
  const [isOpen, setOpen] = useState(false);
  const dispatch = useAppDispatch();
  const canSpeak =
    'speechSynthesis' in window &&
    window.speechSynthesis.getVoices().some(({ lang }) => lang.startsWith(counts.language));
  const listen = (direction: 'up' | 'down') => {
    const spoken = new SpeechSynthesisUtterance(calledCount(SHOWN, direction, counts).join(', '));
    spoken.lang = counts.language;
    window.speechSynthesis.cancel();
    window.speechSynthesis.speak(spoken);
  };
  const setOwn = (n: number, word: string) =>
    dispatch(
      edit(
        `Word for ${n}`,
        ({ settings: { counts: draft } }) => {
          while (draft.own.length < n) draft.own.push('');
          draft.own[n - 1] = word;
          while (draft.own.at(-1) === '') draft.own.pop();
        },
        true,
      ),
    );
  return (
    <>
      <Button onClick={() => setOpen(true)}>Counts</Button>
      <Dialog
        open={isOpen}
        onClose={() => setOpen(false)}
        fullWidth
        maxWidth="sm"
        aria-labelledby="counts-title"
      >
        <DialogTitle id="counts-title">How you count</DialogTitle>
        <DialogContent>
          <Stack spacing={2} sx={{ pt: 1 }}>
            <ChoiceField
              label="Count in"
              value={counts.language}
              choices={languages}
              onChange={(language) =>
                dispatch(
                  edit(
                    'Language of the counts',
                    (d) => void (d.settings.counts.language = language),
                  ),
                )
              }
            />
            <Typography>Up: {calledCount(SHOWN, 'up', counts).join(', ')}.</Typography>
            <Typography>Down: {calledCount(SHOWN, 'down', counts).join(', ')}.</Typography>
            {canSpeak && (
              <Stack direction="row" spacing={1}>
                <Button onClick={() => listen('up')}>Listen, up</Button>
                <Button onClick={() => listen('down')}>Listen, down</Button>
              </Stack>
            )}
            <Typography color="text.secondary">
              Your own word for a number, where you say it otherwise (“eight” as “and rest”).
            </Typography>
            <Box
              sx={{
                display: 'grid',
                gridTemplateColumns: 'repeat(auto-fill, minmax(150px, 1fr))',
                gap: 1.5,
              }}
            >
              {Array.from({ length: SHOWN }, (_, i) => (
                <TextLine
                  key={i}
                  label={`Say ${i + 1} as`}
                  value={counts.own[i] ?? ''}
                  most={LIMITS.title}
                  helper={`usually “${calledNumber(i + 1, { ...counts, own: [] })}”`}
                  onChange={(word) => setOwn(i + 1, word)}
                />
              ))}
            </Box>
          </Stack>
        </DialogContent>
      </Dialog>
    </>
  );
}
