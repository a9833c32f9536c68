import { Button, IconButton, Paper, Stack, Typography } from '@mui/material';
import DeleteOutlineIcon from '@mui/icons-material/DeleteOutlined';
import { allCautions, cueTexts, LIMITS, type Block, type Cue } from '@zest/core/lesson';
import { readingAge, sentenceOfCue } from '@zest/core/script';
import { readingMs, YOUNGEST_READER } from '@zest/core/schedule';

import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { useBlockNow, useLessonPart, useOpenLesson } from '../../app/use-lesson.ts';
import { cueMomentNames } from '../../ui/cue-moments.ts';
import { ChoiceField, TextLine } from '../../ui/fields.tsx';
import { CueLibrary, LibraryState } from './CueLibrary.tsx';
import { useChange } from '../../ui/use-change.ts';

/** One cue in full: key words, moment, body part, reason, the right form and the usual mistake. */
function CueCard({ block, cue, at }: { block: Block; cue: Cue; at: number }) {
  const change = useChange(block);
  const set = (label: string, recipe: (draft: Cue) => void) =>
    change(
      teacherText('script.cue-of', { label, n: at + 1 }),
      (d) => void (d.cues[at] && recipe(d.cues[at])),
    );
  const words = cue.text.trim() === '' ? 0 : cue.text.trim().split(/\s+/).length;
  const [wanted, setWide] = useState(false);
  const isWide =
    wanted || [cue.bodyPart, cue.reason, cue.right, cue.wrong].some((text) => text !== '');
  const sentence = sentenceOfCue(block.script, cue);
  return (
    <Paper variant="outlined" sx={{ p: 1.5 }}>
      <Stack spacing={1.25}>
        <Stack direction="row" useFlexGap sx={{ gap: 1, flexWrap: 'wrap' }}>
          <TextLine
            label={teacherText('script.key-words-of', { n: at + 1 })}
            value={cue.text}
            most={LIMITS.line}
            helper={
              words > 5 || words === 1 ? teacherText('script.two-five-words-read') : undefined
            }
            onChange={(text) => set(teacherText('script.key-words'), (d) => void (d.text = text))}
            sx={{ flex: '1 1 100%' }}
          />
          <ChoiceField
            label={teacherText('script.when')}
            value={cue.moment}
            choices={cueMomentNames}
            sx={{ flex: '1 1 120px' }}
            onChange={(moment) =>
              set(teacherText('script.moment'), (d) => void (d.moment = moment))
            }
          />
          <IconButton
            aria-label={teacherText('script.remove-cue', { n: cue.text || at + 1 })}
            onClick={() =>
              change(teacherText('common.cues'), (d) => void d.cues.splice(at, 1), false)
            }
          >
            <DeleteOutlineIcon fontSize="small" />
          </IconButton>
        </Stack>
        {isWide ? (
          <>
            <Stack direction="row" spacing={1}>
              <TextLine
                label={teacherText('script.body-part')}
                value={cue.bodyPart}
                most={LIMITS.title}
                onChange={(text) =>
                  set(teacherText('script.body-part'), (d) => void (d.bodyPart = text))
                }
              />
              <TextLine
                label={teacherText('common.why')}
                value={cue.reason}
                most={LIMITS.line}
                onChange={(text) =>
                  set(teacherText('script.reason'), (d) => void (d.reason = text))
                }
              />
            </Stack>
            <Stack direction="row" spacing={1}>
              <TextLine
                label={teacherText('script.right')}
                value={cue.right}
                most={LIMITS.line}
                onChange={(text) =>
                  set(teacherText('script.right-form'), (d) => void (d.right = text))
                }
              />
              <TextLine
                label={teacherText('script.usual-mistake')}
                value={cue.wrong}
                most={LIMITS.line}
                onChange={(text) =>
                  set(teacherText('script.mistake'), (d) => void (d.wrong = text))
                }
              />
            </Stack>
          </>
        ) : (
          <Button
            size="small"
            sx={{ alignSelf: 'start', minHeight: 28, py: 0 }}
            onClick={() => setWide(true)}
          >
            {teacherText('script.body-part-why-right')}
          </Button>
        )}
        <LibraryState block={block} cue={cue} at={at} />
        <Typography variant="body2" color="text.secondary">
          {sentence
            ? teacherText('script.spoken', { text: sentence.text })
            : teacherText('script.shown-only-not-tied')}
        </Typography>
      </Stack>
    </Paper>
  );
}

/** Text on screen that is hard for the youngest, and the time a card needs. */
function ReadingNote({ block }: { block: Block }) {
  const { ageFrom } = useOpenLesson().lesson.audience;
  if (block.kind !== 'card' && block.kind !== 'question') return null;
  const text = block.kind === 'card' ? [block.title, ...block.lines].join('. ') : block.question;
  const age = readingAge(text);
  return (
    <Typography variant="body2" color={age !== null && age > ageFrom ? 'error' : 'text.secondary'}>
      {age === null
        ? teacherText('script.too-short-tell-how')
        : teacherText('script.reads-like-age-your', { age, ageFrom })}{' '}
      {teacherText(
        ageFrom < YOUNGEST_READER ? 'script.time-to-read-young' : 'script.time-to-read',
        {
          age: YOUNGEST_READER,
          takesMs: readingMs(text, ageFrom),
        },
      )}
    </Typography>
  );
}

function ShownOpen({ block: shown }: { block: Block }) {
  const block = useBlockNow(shown);
  return (
    <Stack spacing={1.5}>
      {block.cues.map((cue, i) => (
        <CueCard key={cue.id} block={block} cue={cue} at={i} />
      ))}
      <CueLibrary block={block} />
      {block.cues.length === 0 && (
        <Typography color="text.secondary">{teacherText('script.no-cues-yet-put')}</Typography>
      )}
      <ReadingNote block={block} />
    </Stack>
  );
}

/** What is on screen while the block is spoken. */
export function Shown({ block, isOpen }: { block: Block; isOpen: boolean }) {
  const language = useLessonPart(({ settings }) => settings.language);
  if (isOpen) return <ShownOpen block={block} />;
  const shown = [
    ...cueTexts(block, language),
    ...allCautions(block).map((text) => `⚠ ${text}`),
  ].filter((text) => text.trim() !== '');
  return (
    <Stack spacing={0.5}>
      {shown.map((text, i) => (
        <Typography key={i} variant="body2">
          {text}
        </Typography>
      ))}
      <ReadingNote block={block} />
    </Stack>
  );
}
