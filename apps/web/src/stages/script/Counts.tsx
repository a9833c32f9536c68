import { Box, Button, Dialog, DialogContent, DialogTitle, Stack, Typography } from '@mui/material';
import { LIMITS, type CountLanguage } from '@zest/core/lesson';
import { calledCount, calledNumber } from '@zest/core/script';
import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { edit } from '../../app/lesson-slice.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useLessonPart } from '../../app/use-lesson.ts';
import { ChoiceField, TextLine } from '../../ui/fields.tsx';

const languages: readonly (readonly [CountLanguage, string])[] = [
  ['en', teacherText('script.english')],
  ['de', teacherText('script.deutsch')],
  ['es', 'español'],
  ['fr', 'français'],
  ['it', 'italiano'],
  ['nl', teacherText('script.nederlands')],
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
        teacherText('script.word', { n }),
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
      <Button onClick={() => setOpen(true)}>{teacherText('script.counts')}</Button>
      <Dialog
        open={isOpen}
        onClose={() => setOpen(false)}
        fullWidth
        maxWidth="sm"
        aria-labelledby="counts-title"
      >
        <DialogTitle id="counts-title">{teacherText('script.how-you-count')}</DialogTitle>
        <DialogContent>
          <Stack spacing={2} sx={{ pt: 1 }}>
            <ChoiceField
              label={teacherText('script.count')}
              value={counts.language}
              choices={languages}
              onChange={(language) =>
                dispatch(
                  edit(
                    teacherText('script.language-counts'),
                    (d) => void (d.settings.counts.language = language),
                  ),
                )
              }
            />
            <Typography>
              {teacherText('script.up', { list: calledCount(SHOWN, 'up', counts).join(', ') })}
            </Typography>
            <Typography>
              {teacherText('script.down', { list: calledCount(SHOWN, 'down', counts).join(', ') })}
            </Typography>
            {canSpeak && (
              <Stack direction="row" spacing={1}>
                <Button onClick={() => listen('up')}>{teacherText('script.listen-up')}</Button>
                <Button onClick={() => listen('down')}>{teacherText('script.listen-down')}</Button>
              </Stack>
            )}
            <Typography color="text.secondary">
              {teacherText('script.your-own-word-number')}
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
                  label={teacherText('script.say', { n: i + 1 })}
                  value={counts.own[i] ?? ''}
                  most={LIMITS.title}
                  helper={teacherText('script.usually', {
                    calledNumber: calledNumber(i + 1, { ...counts, own: [] }),
                  })}
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
