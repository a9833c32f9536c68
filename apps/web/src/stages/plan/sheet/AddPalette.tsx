import { Box, Button, Tooltip, Typography } from '@mui/material';
import { blockKinds, kindName, readExerciseLines } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useState, type KeyboardEvent } from 'react';
import { makeId } from '../../../app/ids.ts';
import { useChosenBlock, useOpenLesson } from '../../../app/use-lesson.ts';
import { KindMark, ThingMark } from '../../../ui/pictograms.tsx';
import { useAdding } from '../adding.ts';
import { kindWords } from './kinds.ts';

/** Where the next block goes, in words. */
function usePlace(): string {
  const { lesson } = useOpenLesson();
  const { block } = useChosenBlock();
  const { sectionId } = useAdding();
  const section = lesson.sections.find(({ id }) => id === sectionId);
  if (section) return teacherText('sheet.add-to', { section: section.title });
  return block
    ? teacherText('sheet.add-after', { title: block.title || teacherText('untitled') })
    : teacherText('sheet.add-first');
}

/** Exercises typed or pasted as teachers note them, a line each; what is not read stays. */
function TypedLines({ place }: { place: string }) {
  const { lesson } = useOpenLesson();
  const { putIn } = useAdding();
  const [typed, setTyped] = useState('');
  const [notRead, setNotRead] = useState(0);
  const take = () => {
    const read = readExerciseLines(typed, makeId, lesson.settings.language);
    setNotRead(read.notRead.length);
    if (read.blocks.length > 0)
      putIn(teacherText('sheet.lines-added', { n: read.blocks.length }), read.blocks, 'stay');
    setTyped(read.notRead.join('\n'));
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key !== 'Enter' || event.shiftKey) return;
    event.preventDefault();
    if (typed.trim() !== '') take();
  };
  const lines = typed.split('\n').length;
  return (
    <Box sx={{ mb: 0.75 }}>
      <Box sx={{ display: 'flex', gap: 0.75, alignItems: 'start' }}>
        <textarea
          className="running-value"
          aria-label={teacherText('sheet.lines')}
          placeholder={`${place}: ${teacherText('sheet.lines-like')}`}
          rows={Math.min(5, lines)}
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value);
            setNotRead(0);
          }}
          onKeyDown={onKeyDown}
        />
        {typed.trim() !== '' && (
          <Button variant="outlined" size="small" onClick={take}>
            {teacherText('sheet.lines-add')}
          </Button>
        )}
      </Box>
      {notRead > 0 && (
        <Typography role="alert" variant="body2" color="error">
          {teacherText('sheet.lines-not-read', { n: notRead })}
        </Typography>
      )}
    </Box>
  );
}

/** All kinds of blocks at hand, as pictures; and exercises as one would note them. */
export function AddPalette() {
  const { add, addSection, goTo } = useAdding();
  const place = usePlace();
  return (
    <Box
      component="section"
      aria-label={teacherText('sheet.add')}
      sx={{ borderTop: 1, borderColor: 'divider', px: 1.5, py: 1, bgcolor: 'background.default' }}
    >
      <TypedLines place={place} />
      <Box className="sheet-kinds">
        {blockKinds.map((kind) => (
          <Tooltip key={kind} title={kindWords[kind]}>
            <button
              type="button"
              className="sheet-kind"
              aria-label={`+ ${kindName(kind)}`}
              onClick={() => add(kind)}
            >
              <KindMark kind={kind} size={20} />
              {kindName(kind)}
            </button>
          </Tooltip>
        ))}
        <button
          type="button"
          className="sheet-kind"
          aria-label={teacherText('sheet.add-section')}
          onClick={() => goTo(addSection())}
        >
          <ThingMark of="more" size={20} />
          {teacherText('sheet.section')}
        </button>
      </Box>
    </Box>
  );
}
