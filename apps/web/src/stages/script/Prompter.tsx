import { Box, Button, Dialog } from '@mui/material';
import { prompterOf, type PrompterLine } from '@zest/core/script';
import { teacherText } from '@zest/core/words';
import { useMemo, useState } from 'react';
import { useOpenLesson } from '../../app/use-lesson.ts';

const looks: Record<PrompterLine['kind'], object> = {
  title: { color: '#8fd6c9', fontSize: '1.6rem', mt: 6, mb: 1 },
  plan: { color: '#8fd6c9', fontSize: 'clamp(1.4rem, 3.4vw, 2.4rem)', fontWeight: 650 },
  said: { fontSize: 'clamp(2rem, 5vw, 3.6rem)', lineHeight: 1.25 },
  cue: { fontSize: 'clamp(2.2rem, 5.6vw, 4rem)', fontWeight: 750, color: '#ffb454', my: 1 },
  count: { fontSize: 'clamp(2rem, 5vw, 3.6rem)', color: '#8fd6c9', lineHeight: 1.25 },
  next: { color: '#dccdb9', fontSize: '1.6rem', mt: 1, borderBottom: '2px solid #5a4d3e', pb: 3 },
};

/**
 * The lesson as it stands on the prompter: short lines, cues large, what comes next after each
 * block.
 */
export function Prompter() {
  const { lesson } = useOpenLesson();
  const [isOpen, setOpen] = useState(false);
  const blocks = useMemo(() => (isOpen ? prompterOf(lesson) : []), [isOpen, lesson]);
  return (
    <>
      <Button onClick={() => setOpen(true)}>{teacherText('common.prompter')}</Button>
      <Dialog
        fullScreen
        open={isOpen}
        onClose={() => setOpen(false)}
        slotProps={{
          paper: {
            'aria-label': teacherText('common.prompter'),
            sx: { bgcolor: '#12100d', color: '#fff6ea' },
          },
        }}
      >
        <Box sx={{ position: 'sticky', top: 0, p: 1, textAlign: 'right', bgcolor: '#12100d' }}>
          <Button
            variant="outlined"
            onClick={() => setOpen(false)}
            sx={{ color: '#ffb454', borderColor: '#ffb454' }}
          >
            {teacherText('script.close-prompter')}
          </Button>
        </Box>
        <Box sx={{ px: { xs: 2, md: 10 }, pb: 10 }}>
          {blocks.map(({ blockId, lines }) => (
            <section key={blockId}>
              {lines.map((line, i) => (
                <Box key={i} dir="auto" sx={looks[line.kind]}>
                  {line.text}
                </Box>
              ))}
            </section>
          ))}
        </Box>
      </Dialog>
    </>
  );
}
