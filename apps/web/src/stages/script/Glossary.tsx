import { Button, Chip, Dialog, DialogContent, DialogTitle, Stack, Typography } from '@mui/material';
import { allCues, blocksOf, LIMITS, type Lesson, type Term } from '@zest/core/lesson';
import { saidIn, unexplainedWords } from '@zest/core/script';
import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { makeId } from '../../app/ids.ts';
import { edit } from '../../app/lesson-slice.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useLessonPart, useOpenLesson } from '../../app/use-lesson.ts';
import { TextLine } from '../../ui/fields.tsx';
import { Rows } from '../../ui/Rows.tsx';

/** Long words of the lesson that nothing explains; at most so many are offered. */
const OFFERED = 8;

function textOf(lesson: Lesson): string {
  return blocksOf(lesson)
    .map((block) =>
      [
        saidIn(block),
        ...allCues(block).map(({ text }) => text),
        ...(block.kind === 'card' ? block.lines : []),
      ].join('. '),
    )
    .join('. ');
}

/** Terms of the lesson with a plain explanation. */
export function Glossary() {
  const { lesson } = useOpenLesson();
  const glossary = useLessonPart((now) => now.glossary);
  const [isOpen, setOpen] = useState(false);
  const dispatch = useAppDispatch();
  const set = (label: string, recipe: (terms: Term[]) => void, merge = true) =>
    dispatch(edit(label, (d) => recipe(d.glossary), merge));
  const add = (term: string) =>
    set(
      teacherText('script.add-term'),
      (terms) => void terms.push({ id: makeId(), term, plain: '' }),
      false,
    );
  const offered = isOpen ? unexplainedWords(textOf(lesson), glossary).slice(0, OFFERED) : [];
  const isFull = glossary.length >= LIMITS.glossary;
  return (
    <>
      <Button onClick={() => setOpen(true)}>
        {teacherText('script.glossary-count', { count: glossary.length })}
      </Button>
      <Dialog
        open={isOpen}
        onClose={() => setOpen(false)}
        fullWidth
        maxWidth="md"
        aria-labelledby="glossary-title"
      >
        <DialogTitle id="glossary-title">{teacherText('script.glossary')}</DialogTitle>
        <DialogContent>
          <Stack spacing={2} sx={{ pt: 1 }}>
            <Typography color="text.secondary">
              {teacherText('script.explained-script-where-they')}
            </Typography>
            {offered.length > 0 && !isFull && (
              <Stack
                direction="row"
                useFlexGap
                sx={{ flexWrap: 'wrap', gap: 1, alignItems: 'center' }}
              >
                <Typography>{teacherText('script.long-words-nothing-explains')}</Typography>
                {offered.map((word) => (
                  <Chip key={word} label={`+ ${word}`} onClick={() => add(word)} />
                ))}
              </Stack>
            )}
            <Rows
              title={teacherText('script.terms')}
              addLabel={teacherText('script.term')}
              most={LIMITS.glossary}
              onAdd={() => add('')}
              onRemove={(i) =>
                set(teacherText('script.remove-term'), (terms) => void terms.splice(i, 1), false)
              }
              rows={glossary.map(({ id, term, plain }, i) => ({
                key: id,
                name: term,
                fields: (
                  <>
                    <TextLine
                      label={teacherText('script.term-of', { n: i + 1 })}
                      value={term}
                      most={LIMITS.title}
                      sx={{ maxWidth: 220 }}
                      onChange={(text) =>
                        set(
                          teacherText('script.term-of', { n: i + 1 }),
                          (terms) => void (terms[i] && (terms[i].term = text)),
                        )
                      }
                    />
                    <TextLine
                      label={teacherText('script.plain-words')}
                      value={plain}
                      most={LIMITS.line}
                      onChange={(text) =>
                        set(
                          teacherText('script.explanation', { n: i + 1 }),
                          (terms) => void (terms[i] && (terms[i].plain = text)),
                        )
                      }
                    />
                  </>
                ),
              }))}
            />
          </Stack>
        </DialogContent>
      </Dialog>
    </>
  );
}
