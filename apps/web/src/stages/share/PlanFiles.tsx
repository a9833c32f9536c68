import { Alert, Button, FormControlLabel, Stack, Switch, Typography } from '@mui/material';
import { kitCsv, planMarkdown, runSheetCsv } from '@zest/core/formats';
import { scheduleLesson } from '@zest/core/schedule';
import { routes, urlOf, type Print } from '@zest/contract';
import { useState } from 'react';
import { saveFirst } from '../../app/autosave.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useLessonNow, useOpenLesson } from '../../app/use-lesson.ts';
import { fetchFile, saveCsv, saveFile } from '../../ui/save-file.ts';

const papers: readonly (readonly [Print, string])[] = [
  ['plan', 'Plan on one page'],
  ['kit', 'Kit list for families'],
  ['run-sheet', 'Run sheet'],
];

/** The plan on paper and as files: to hand out, to keep, to read, and for a spreadsheet. */
export function PlanFiles() {
  const { id } = useOpenLesson();
  const now = useLessonNow();
  const dispatch = useAppDispatch();
  const [busy, setBusy] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [withFootage, setFootage] = useState(true);
  /** What the server makes is made of what it has: the last change goes there first. */
  const fetchSaved = async (name: string, url: string, what: string) => {
    setBusy(what);
    setProblem(null);
    setProblem((await dispatch(saveFirst())) ?? (await fetchFile(name, url)));
    setBusy(null);
  };
  return (
    <Stack spacing={1}>
      <Typography component="h2" variant="h2">
        The plan on paper and as files
      </Typography>
      <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: 'wrap' }}>
        {papers.map(([print, name]) => (
          <Button
            key={print}
            variant="outlined"
            disabled={busy !== null}
            onClick={() =>
              void fetchSaved(`${print}.pdf`, urlOf(routes.print, { lessonId: id, print }), name)
            }
          >
            {name} (PDF)
          </Button>
        ))}
      </Stack>
      <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: 'wrap' }}>
        <Button
          onClick={() =>
            saveFile('plan.md', planMarkdown(now(), scheduleLesson(now())), 'text/markdown')
          }
        >
          Plan (Markdown)
        </Button>
        <Button
          onClick={() =>
            saveCsv('run-sheet.csv', runSheetCsv(scheduleLesson(now()), now().settings.language))
          }
        >
          Run sheet (CSV)
        </Button>
        <Button
          onClick={() => saveCsv('kit.csv', kitCsv(scheduleLesson(now()), now().settings.language))}
        >
          Kit list (CSV)
        </Button>
        <Button
          onClick={() =>
            saveFile('lesson.zest.json', JSON.stringify(now(), null, 2), 'application/json')
          }
        >
          Save the lesson file
        </Button>
      </Stack>
      <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: 'wrap', alignItems: 'center' }}>
        <Button
          disabled={busy !== null}
          onClick={() =>
            void fetchSaved(
              'lesson.zest.zip',
              urlOf(routes.archive, { lessonId: id }, { media: withFootage ? undefined : 0 }),
              'Lesson archive',
            )
          }
        >
          Save the lesson archive (zip)
        </Button>
        <FormControlLabel
          control={<Switch checked={withFootage} onChange={(_event, on) => setFootage(on)} />}
          label="with its footage"
        />
      </Stack>
      <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: 'wrap' }}>
        <Button
          variant="outlined"
          disabled={busy !== null}
          onClick={() =>
            void fetchSaved(
              'lesson-folder.zip',
              urlOf(routes.package, { lessonId: id, kind: 'folder' }),
              'Folder for a memory stick',
            )
          }
        >
          Folder for a memory stick (zip)
        </Button>
        <Button
          variant="outlined"
          disabled={busy !== null}
          onClick={() =>
            void fetchSaved(
              'lesson-scorm.zip',
              urlOf(routes.package, { lessonId: id, kind: 'scorm' }),
              'SCORM package',
            )
          }
        >
          For a learning platform (SCORM 1.2)
        </Button>
      </Stack>
      <Typography aria-live="polite" color="text.secondary">
        {busy
          ? `${busy} is being made …`
          : 'The archive opens on any Zest Frame: “Open a lesson file” on the shelf.'}
      </Typography>
      {problem && <Alert severity="error">{problem}</Alert>}
    </Stack>
  );
}
