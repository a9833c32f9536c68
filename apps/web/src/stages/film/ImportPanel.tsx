import { Alert, Button, Paper, Stack, Typography } from '@mui/material';
import type { Take } from '@zest/contract';
import { shotsToFilm } from '@zest/core/framing';
import { blocksOf } from '@zest/core/lesson';
import { clockText, instantOfFrame } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { useMemo, useState, type DragEvent } from 'react';
import { api } from '../../app/api.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useLessonNow, useOpenLesson, useTakes } from '../../app/use-lesson.ts';
import { ChoiceField } from '../../ui/fields.tsx';
import { FilesButton } from './FilesButton.tsx';
import { matchByOrder } from './match.ts';
import { chooseTake, importTake, needsFootage } from './uploads.ts';

const NOT_CHOSEN = '';

/** Files of a folder that was dropped, whatever lies in it. */
async function droppedFiles(event: DragEvent): Promise<File[]> {
  const entries = [...event.dataTransfer.items].flatMap((item) => item.webkitGetAsEntry() ?? []);
  const files: File[] = [];
  const walk = async (entry: FileSystemEntry): Promise<void> => {
    if (entry.isFile) {
      files.push(
        await new Promise<File>((resolve, reject) =>
          (entry as FileSystemFileEntry).file(resolve, reject),
        ),
      );
      return;
    }
    const reader = (entry as FileSystemDirectoryEntry).createReader();
    for (;;) {
      const some = await new Promise<FileSystemEntry[]>((resolve, reject) =>
        reader.readEntries(resolve, reject),
      );
      if (some.length === 0) return;
      for (const one of some) await walk(one);
    }
  };
  for (const entry of entries) await walk(entry);
  return files.sort((a, b) => a.lastModified - b.lastModified || a.name.localeCompare(b.name));
}

/** Takes whose block nobody knows yet, with a proposal from their order and length. */
function Unplaced({ takes }: { takes: readonly Take[] }) {
  const { lesson } = useOpenLesson();
  const all = useTakes();
  const now = useLessonNow();
  const dispatch = useAppDispatch();
  const [change] = api.useChangeTakeMutation();
  const [chosen, setOwn] = useState<Readonly<Record<string, string>>>({});
  const filmed = useMemo(
    () => new Set(all.filter(({ inBin }) => !inBin).map(({ blockId }) => blockId)),
    [all],
  );
  const proposed = useMemo(() => {
    const open = shotsToFilm(lesson).filter(
      ({ block }, i, list) =>
        !filmed.has(block.id) && list.findIndex((other) => other.block.id === block.id) === i,
    );
    return matchByOrder(
      takes
        .filter(({ state }) => state === 'ready')
        .map(({ id, frames }) => ({ id, ms: instantOfFrame(frames) })),
      open.map(({ block, durationMs }) => ({ id: block.id, ms: durationMs })),
    );
  }, [lesson, takes, filmed]);
  const blocks = blocksOf(lesson);
  const choices: [string, string][] = [
    [NOT_CHOSEN, teacherText('film.not-placed')],
    ...blocks.map(
      ({ id, title }, i) =>
        [id, `${i + 1}. ${title || teacherText('untitled')}`] as [string, string],
    ),
  ];
  const chosenFor = ({ id }: Take) => chosen[id] ?? proposed.get(id) ?? NOT_CHOSEN;
  const confirm = async (list: readonly Take[]) => {
    for (const take of list) {
      const block = blocksOf(now()).find(({ id }) => id === chosenFor(take));
      if (!block) continue;
      const answer = await change({ takeId: take.id, blockId: block.id });
      if (answer.data && dispatch(needsFootage(take.lessonId, block)))
        dispatch(chooseTake(block, take.id, null));
    }
  };
  const ready = takes.filter((take) => take.state === 'ready' && chosenFor(take) !== NOT_CHOSEN);
  return (
    <Stack spacing={1} component="section" aria-label={teacherText('film.files-without-block')}>
      <Typography variant="h3">{teacherText('film.no-sync-mark-was')}</Typography>
      {takes.map((take) => (
        <Stack
          key={take.id}
          direction="row"
          useFlexGap
          sx={{ gap: 1.5, alignItems: 'center', flexWrap: 'wrap' }}
        >
          <Typography noWrap sx={{ width: 240 }}>
            {take.name}
          </Typography>
          <Typography color="text.secondary" sx={{ width: 90 }}>
            {take.state === 'ready'
              ? clockText(instantOfFrame(take.frames))
              : take.state === 'failed'
                ? teacherText('film.unusable')
                : teacherText('film.arriving')}
          </Typography>
          <ChoiceField
            label={teacherText('film.block', { name: take.name })}
            value={chosenFor(take)}
            choices={choices}
            onChange={(blockId) => setOwn({ ...chosen, [take.id]: blockId })}
            sx={{ width: 280 }}
          />
        </Stack>
      ))}
      <Button
        variant="contained"
        disabled={ready.length === 0}
        onClick={() => void confirm(ready)}
        sx={{ alignSelf: 'start' }}
      >
        {ready.length === 1
          ? teacherText('film.yes-place')
          : teacherText('film.yes-place-these', { count: ready.length })}
      </Button>
    </Stack>
  );
}

/**
 * Takes in files from a phone or another camera: matched to blocks by their sync marks, else by
 * order and length.
 */
export function ImportPanel() {
  const { id: lessonId } = useOpenLesson();
  const takes = useTakes();
  const dispatch = useAppDispatch();
  const [over, setOver] = useState(false);
  const [faults, setFaults] = useState<string[]>([]);
  const take = async (files: readonly File[]) => {
    const found: string[] = files.length === 0 ? [teacherText('film.there-was-no-file')] : [];
    for (const file of files) {
      const fault = await dispatch(importTake(lessonId, file));
      if (fault) found.push(fault);
    }
    setFaults(found);
  };
  const unplaced = takes.filter(({ blockId, inBin }) => blockId === '' && !inBin);
  return (
    <Stack spacing={2}>
      <Paper
        variant="outlined"
        sx={{
          p: 4,
          borderStyle: 'dashed',
          borderColor: over ? 'primary.main' : 'divider',
          borderWidth: 2,
          textAlign: 'center',
        }}
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={(event) => {
          event.preventDefault();
          setOver(false);
          void droppedFiles(event).then(take);
        }}
      >
        <Typography sx={{ fontSize: '1.25rem', mb: 2 }}>
          {teacherText('film.drop-files-folder-phone')}
        </Typography>
        <FilesButton
          label={teacherText('film.choose-files')}
          inputLabel={teacherText('film.camera-files')}
          onFiles={(files) => void take(files)}
        />
        <Typography color="text.secondary" sx={{ mt: 2 }}>
          {teacherText('film.files-sync-marks-find')}
        </Typography>
      </Paper>
      {faults.map((fault) => (
        <Alert key={fault} severity="error">
          {fault}
        </Alert>
      ))}
      {unplaced.length > 0 && (
        <Paper variant="outlined" sx={{ p: 2 }}>
          <Unplaced takes={unplaced} />
        </Paper>
      )}
    </Stack>
  );
}
