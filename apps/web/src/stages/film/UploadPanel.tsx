import { Alert, Paper, Typography } from '@mui/material';
import type { Block } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useState, type DragEvent } from 'react';
import { useAppDispatch } from '../../app/store.ts';
import { useOpenLesson } from '../../app/use-lesson.ts';
import { FilesButton } from './FilesButton.tsx';
import { uploadTake } from './uploads.ts';

/** Takes files from the phone: by a button or dropped here. */
export function UploadPanel({ block }: { block: Block }) {
  const { id: lessonId } = useOpenLesson();
  const [over, setOver] = useState(false);
  const [faults, setFaults] = useState<string[]>([]);
  const dispatch = useAppDispatch();

  const take = async (files: readonly File[]) => {
    const found: string[] = [];
    for (const file of files) {
      const fault = await dispatch(uploadTake(lessonId, block, file));
      if (fault) found.push(fault);
    }
    setFaults(found);
  };
  const drop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    void take([...event.dataTransfer.files]);
  };

  return (
    <Paper
      variant="outlined"
      sx={{
        p: 2,
        borderStyle: 'dashed',
        borderColor: over ? 'primary.main' : 'divider',
        borderWidth: 2,
      }}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={drop}
    >
      <FilesButton
        label={teacherText('film.upload-video')}
        inputLabel={teacherText('film.video-file')}
        onFiles={(files) => void take(files)}
      />
      <Typography color="text.secondary" sx={{ mt: 1 }}>
        {teacherText('film.drop-files-here-mp4')}
      </Typography>
      {faults.map((fault) => (
        <Alert key={fault} severity="error" sx={{ mt: 1 }}>
          {fault}
        </Alert>
      ))}
    </Paper>
  );
}
