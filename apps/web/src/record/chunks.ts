import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

/** A recording this browser still holds, because the server may not have all of it. */
export interface KeptRecording {
  takeId: string;
  lessonId: string;
  blockId: string;
  mimeType: string;
  startedAt: number;
}

interface Shape extends DBSchema {
  recordings: { key: string; value: KeptRecording; indexes: { lesson: string } };
  chunks: { key: [string, number]; value: Blob };
}

let opened: Promise<IDBPDatabase<Shape>> | undefined;

function database(): Promise<IDBPDatabase<Shape>> {
  opened ??= openDB<Shape>('zest-recordings', 1, {
    upgrade(db) {
      db.createObjectStore('recordings', { keyPath: 'takeId' }).createIndex('lesson', 'lessonId');
      db.createObjectStore('chunks');
    },
  });
  return opened;
}

export async function keepRecording(recording: KeptRecording): Promise<void> {
  await (await database()).put('recordings', recording);
}

export async function keepChunk(takeId: string, index: number, chunk: Blob): Promise<void> {
  await (await database()).put('chunks', chunk, [takeId, index]);
}

export async function keptRecordings(lessonId: string): Promise<KeptRecording[]> {
  return (await database()).getAllFromIndex('recordings', 'lesson', lessonId);
}

/** All chunks of a recording in order, as one file. */
export async function keptFile(recording: KeptRecording): Promise<Blob> {
  const range = IDBKeyRange.bound([recording.takeId, 0], [recording.takeId, Infinity]);
  return new Blob(await (await database()).getAll('chunks', range), { type: recording.mimeType });
}

export async function dropRecording(takeId: string): Promise<void> {
  const db = await database();
  await db.delete('chunks', IDBKeyRange.bound([takeId, 0], [takeId, Infinity]));
  await db.delete('recordings', takeId);
}
