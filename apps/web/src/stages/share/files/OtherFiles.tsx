import { Alert, Button, FormControlLabel, Switch } from '@mui/material';
import {
  routes,
  urlOf,
  type CutFile,
  type HandOverFootage,
  type PackageKind,
  type Print,
} from '@zest/contract';
import { kitCsv, planMarkdown, runSheetCsv } from '@zest/core/formats';
import { scheduleLesson } from '@zest/core/schedule';
import { teacherText, type TeacherWord } from '@zest/core/words';
import { useState } from 'react';
import { saveFirst } from '../../../app/autosave.ts';
import { useAppDispatch } from '../../../app/store.ts';
import { useLessonNow, useOpenLesson } from '../../../app/use-lesson.ts';
import { fetchFile, saveCsv, saveFile } from '../../../ui/save-file.ts';
import { FileGroup, FileRow } from './FileList.tsx';

type FileWord =
  Extract<TeacherWord, `files.${string}-for`> extends `${infer Name}-for` ? Name : never;

/** A file the server makes of the lesson as it is stored. */
interface ServedFile {
  word: FileWord;
  /** What it is called on the reader's disk. */
  file: string;
  sign: string;
  url: string;
  /** Too large to be held by the page: the browser takes it straight to the disk. */
  isLarge?: true;
}
/** A file made in the page. */
interface PageFile {
  word: FileWord;
  sign: string;
  save: () => void;
}

const papers: readonly (readonly [Print, FileWord])[] = [
  ['plan', 'files.plan'],
  ['kit', 'files.kit'],
  ['run-sheet', 'files.run-sheet'],
];
const texts: readonly (readonly [CutFile, FileWord, string])[] = [
  ['captions.vtt', 'files.captions-vtt', 'VTT'],
  ['captions.srt', 'files.captions-srt', 'SRT'],
  ['chapters.txt', 'files.chapters', 'TXT'],
];
const cuts: readonly (readonly [CutFile, FileWord, string])[] = [
  ['cut.otio', 'files.otio', 'OTIO'],
  ['cut.edl', 'files.edl', 'EDL'],
];
const packages: readonly (readonly [PackageKind, FileWord])[] = [
  ['folder', 'files.folder'],
  ['scorm', 'files.scorm'],
];
const handOvers: readonly (readonly [HandOverFootage, FileWord])[] = [
  ['takes', 'files.takes'],
  ['originals', 'files.originals'],
];

/** Everything of a lesson that can be taken away besides the video, with what each is for. */
export function OtherFiles() {
  const { id: lessonId } = useOpenLesson();
  const now = useLessonNow();
  const dispatch = useAppDispatch();
  const [busy, setBusy] = useState<string | null>(null);
  const [problem, setProblem] = useState<{ word: string; words: string } | null>(null);
  const [withFootage, setFootage] = useState(true);
  /** What the server makes is made of what it has: the last change goes there first. */
  const fetchSaved = async ({ word, file, url, isLarge }: ServedFile) => {
    setBusy(word);
    setProblem(null);
    const unsaved = await dispatch(saveFirst());
    if (unsaved === null && isLarge) location.assign(url);
    const words = unsaved ?? (isLarge ? null : await fetchFile(file, url));
    setProblem(words === null ? null : { word, words });
    setBusy(null);
  };
  const row = ({ word, sign }: Pick<PageFile, 'word' | 'sign'>, onGet: () => void) => {
    const name = teacherText(word);
    return (
      <FileRow
        key={word}
        sign={sign}
        name={name}
        purpose={teacherText(`${word}-for`)}
        {...(busy === word && { state: teacherText('files.being-made') })}
      >
        {problem?.word === word && <Alert severity="error">{problem.words}</Alert>}
        {word === 'files.archive' && (
          <FormControlLabel
            control={<Switch checked={withFootage} onChange={(_event, on) => setFootage(on)} />}
            label={teacherText('files.with-footage')}
          />
        )}
        <Button
          variant="outlined"
          disabled={busy !== null}
          aria-label={teacherText('files.get', { name })}
          onClick={onGet}
        >
          {teacherText('files.save')}
        </Button>
      </FileRow>
    );
  };
  const served = (file: ServedFile) => row(file, () => void fetchSaved(file));
  const made = (file: PageFile) => row(file, file.save);
  const cut = ([file, word, sign]: (typeof texts)[number]) =>
    served({ word, file, sign, url: urlOf(routes.cutFile, { lessonId, file }) });
  return (
    <>
      <FileGroup name={teacherText('files.group-text')}>{texts.map(cut)}</FileGroup>
      <FileGroup name={teacherText('files.group-paper')}>
        {papers.map(([print, word]) =>
          served({
            word,
            file: `${print}.pdf`,
            sign: 'PDF',
            url: urlOf(routes.print, { lessonId, print }),
          }),
        )}
        {made({
          ...{ word: 'files.plan-md', sign: 'MD' },
          save: () =>
            saveFile('plan.md', planMarkdown(now(), scheduleLesson(now())), 'text/markdown'),
        })}
        {made({
          ...{ word: 'files.run-sheet-csv', sign: 'CSV' },
          save: () =>
            saveCsv('run-sheet.csv', runSheetCsv(scheduleLesson(now()), now().settings.language)),
        })}
        {made({
          ...{ word: 'files.kit-csv', sign: 'CSV' },
          save: () => saveCsv('kit.csv', kitCsv(scheduleLesson(now()), now().settings.language)),
        })}
      </FileGroup>
      <FileGroup name={teacherText('files.group-keep')}>
        {packages.map(([kind, word]) =>
          served({
            ...{
              word,
              sign: 'ZIP',
              file: kind === 'folder' ? 'lesson-folder.zip' : 'lesson-scorm.zip',
            },
            url: urlOf(routes.package, { lessonId, kind }),
          }),
        )}
        {served({
          ...{ word: 'files.archive', sign: 'ZIP', file: 'lesson.zest.zip' },
          url: urlOf(routes.archive, { lessonId }, { media: withFootage ? undefined : 0 }),
        })}
        {made({
          ...{ word: 'files.lesson', sign: 'JSON' },
          save: () =>
            saveFile('lesson.zest.json', JSON.stringify(now(), null, 2), 'application/json'),
        })}
      </FileGroup>
      <FileGroup name={teacherText('files.group-cut')}>
        {cuts.map(cut)}
        {handOvers.map(([footage, word]) =>
          served({
            ...{ word, sign: 'ZIP', file: `cut-${footage}.zip`, isLarge: true },
            url: urlOf(routes.handOver, { lessonId, footage }),
          }),
        )}
      </FileGroup>
    </>
  );
}
