import { Alert, Button, MenuItem, Paper, Stack, TextField } from '@mui/material';
import type { LessonSummary } from '@zest/contract';
import { blocksOf, duplicateLesson, LIMITS, type Lesson } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { api, problemText } from '../../app/api.ts';
import { makeId } from '../../app/ids.ts';
import { useNotice } from '../../app/notice.tsx';
import { takeFile } from '../../ui/FileButton.tsx';
import { Patterns } from './Patterns.tsx';

const EMPTY = 'empty';
const footageIn = (lesson: Lesson) =>
  blocksOf(lesson).filter(({ footage }) => footage !== null).length;

/** A lesson, or a whole archive, from a file of one's own. */
function OpenFile({ onFault }: { onFault: (fault: string | null) => void }) {
  const [makeLesson] = api.useMakeLessonMutation();
  const [openArchive, opening] = api.useOpenArchiveMutation();
  const file = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();
  const notice = useNotice();
  const goTo = (made: { id: string; lesson: Lesson }, hadFootage: number) => {
    const lost = hadFootage - footageIn(made.lesson);
    if (lost > 0) notice(teacherText('shelf.blocks-came-without-footage', { lost }));
    void navigate(`/lessons/${made.id}/plan`);
  };
  const openFile = async (chosen: File) => {
    onFault(null);
    // A zip begins with its mark; what a file is called says little.
    if ((await chosen.slice(0, 2).text()) === 'PK') {
      const made = await openArchive(chosen);
      if (made.data) goTo(made.data, 0);
      else onFault(problemText(made.error));
      return;
    }
    let document: unknown;
    try {
      document = JSON.parse(await chosen.text());
    } catch {
      onFault(teacherText('shelf.not-lesson-file-choose', { name: chosen.name }));
      return;
    }
    const made = await makeLesson({ document });
    if (made.data) goTo(made.data, JSON.stringify(document).match(/"takeId"/g)?.length ?? 0);
    else onFault(problemText(made.error));
  };
  return (
    <>
      <Button onClick={() => file.current?.click()} disabled={opening.isLoading}>
        {opening.isLoading
          ? teacherText('shelf.checking-archive')
          : teacherText('shelf.open-lesson-file')}
      </Button>
      <input
        ref={file}
        type="file"
        accept="application/json,.json,application/zip,.zip"
        hidden
        aria-label={teacherText('shelf.lesson-file')}
        onChange={takeFile((chosen) => void openFile(chosen))}
      />
    </>
  );
}

/** Starts a lesson: empty, from a template, or from a file. */
export function NewLesson({
  templates,
  problem,
  withPatterns,
}: {
  templates: LessonSummary[];
  problem: string | null;
  /** Whether patterns are shown before one asks for them. */
  withPatterns: boolean;
}) {
  const [isOpen, setOpen] = useState(false);
  const showsPatterns = withPatterns || isOpen;
  const [makeLesson, making] = api.useMakeLessonMutation();
  const [read] = api.useLazyLessonQuery();
  const [title, setTitle] = useState('');
  const [template, setTemplate] = useState(EMPTY);
  const [fileFault, setFileFault] = useState<string | null>(null);
  const navigate = useNavigate();

  const start = async () => {
    const from = template === EMPTY ? null : (await read(template)).data?.lesson;
    const wanted = title.trim() || from?.title || '';
    const made = await makeLesson(
      from
        ? { document: { ...duplicateLesson(from, makeId), title: wanted.slice(0, LIMITS.title) } }
        : { title },
    );
    if (made.data) void navigate(`/lessons/${made.data.id}/plan`);
  };
  const fault = fileFault ?? problemText(making.error) ?? problem;
  return (
    <Paper variant="outlined" sx={{ p: 2, mb: 3 }}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void start();
        }}
      >
        <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 2 }}>
          <TextField
            label={teacherText('shelf.title-new-lesson')}
            value={title}
            onChange={(event) => setTitle(event.target.value)}
            sx={{ width: { xs: '100%', sm: 340 } }}
          />
          {templates.length > 0 && (
            <TextField
              select
              label={teacherText('shelf.begin')}
              value={template}
              onChange={(event) => setTemplate(event.target.value)}
              sx={{ width: 220 }}
            >
              <MenuItem value={EMPTY}>{teacherText('shelf.empty-lesson')}</MenuItem>
              {templates.map(({ id, title: name }) => (
                <MenuItem key={id} value={id}>
                  {name}
                </MenuItem>
              ))}
            </TextField>
          )}
          <Button type="submit" variant="contained" disabled={making.isLoading}>
            {teacherText('shelf.start-lesson')}
          </Button>
          {!withPatterns && (
            <Button variant="outlined" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
              {teacherText('pattern.from')}
            </Button>
          )}
          <OpenFile onFault={setFileFault} />
        </Stack>
        {fault && (
          <Alert severity="error" sx={{ mt: 2 }}>
            {fault}
          </Alert>
        )}
      </form>
      {showsPatterns && <Patterns />}
    </Paper>
  );
}
