import { Alert, Button, Stack } from '@mui/material';
import { MAX_HAND_ENTRIES } from '@zest/contract';
import { decodeTable, readScores } from '@zest/core/results';
import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { api, problemText } from '../../app/api.ts';
import { classApi } from '../../app/class-api.ts';
import { useNotice } from '../../app/notice.tsx';
import { FileButton } from '../../ui/FileButton.tsx';
import { LineFaults } from '../../ui/LineFaults.tsx';
import type { ClassPart } from './class-part.ts';

/**
 * The id a number gets here: the same whenever the same table is brought to the same class, and
 * nobody else's.
 */
async function idIn(classId: string, entryId: string): Promise<string> {
  const bytes = new Uint8Array(
    await crypto.subtle.digest('SHA-256', new TextEncoder().encode(`${classId} ${entryId}`)),
  );
  return Array.from(bytes.subarray(0, 16), (byte) => byte.toString(16).padStart(2, '0')).join('');
}

/**
 * Numbers that were saved as a table come back into the class: what is there already is not taken
 * twice.
 */
export function BringBack({ schoolClass, students }: ClassPart) {
  const [readAll] = classApi.useLazyLogQuery();
  const lessons = api.useLessonsQuery().data ?? [];
  const [add, adding] = classApi.useAddEntriesMutation();
  const [found, setFound] = useState<ReturnType<typeof readScores> | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const notice = useNotice();
  const read = async (file: File) => {
    setFound(null);
    setFault(null);
    try {
      const { entries: all, faults } = readScores(
        decodeTable(new Uint8Array(await file.arrayBuffer())),
        { students, lessonIds: new Set(lessons.map(({ id }) => id)) },
      );
      const log = await readAll({ classId: schoolClass.id });
      if (!log.data)
        throw new Error(problemText(log.error) ?? teacherText('class.what-there-already-could'));
      const there = new Set(log.data.entries.map(({ id }) => id));
      const named = await Promise.all(
        all.map(async (entry) => ({ ...entry, hereId: await idIn(schoolClass.id, entry.id) })),
      );
      setFound({
        entries: named
          .filter(({ id, hereId }) => !there.has(id) && !there.has(hereId))
          .map(({ hereId, ...entry }) => ({ ...entry, id: hereId })),
        faults,
      });
    } catch (error) {
      setFault(error instanceof Error ? error.message : String(error));
    }
  };
  const send = async () => {
    if (!found) return;
    for (let from = 0; from < found.entries.length; from += MAX_HAND_ENTRIES) {
      const sent = await add({
        classId: schoolClass.id,
        entries: found.entries.slice(from, from + MAX_HAND_ENTRIES),
      });
      if (sent.error) return;
    }
    notice(teacherText('class.numbers-back', { count: found.entries.length }));
    setFound(null);
  };
  const problem = fault ?? problemText(adding.error);
  return (
    <Stack spacing={1} sx={{ alignItems: 'start' }}>
      <FileButton
        label={teacherText('class.bring-back-saved-numbers')}
        accept=".csv"
        onFile={(file) => void read(file)}
      />
      {problem && <Alert severity="error">{problem}</Alert>}
      {found && (
        <Alert
          severity={found.faults.length > 0 ? 'warning' : 'info'}
          action={
            found.entries.length > 0 && (
              <Button size="small" disabled={adding.isLoading} onClick={() => void send()}>
                {teacherText('class.bring-back', { count: found.entries.length })}
              </Button>
            )
          }
        >
          {found.entries.length === 0
            ? teacherText('class.nothing-missing-here')
            : teacherText('class.missing-here', { count: found.entries.length })}
          <LineFaults faults={found.faults} />
        </Alert>
      )}
    </Stack>
  );
}
