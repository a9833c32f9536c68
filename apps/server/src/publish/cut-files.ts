import { mkdtemp, readFile, rm } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import type { CutFile } from '@zest/contract';
import type { Assembly } from '@zest/core/assembly';
import {
  captionsToSubRip,
  captionsToWebVtt,
  chaptersText,
  editList,
  timelineOf,
} from '@zest/core/formats';
import type { Lesson } from '@zest/core/lesson';
import { firstFrameFrom } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import type { TakeRow } from '../db/models.ts';
import { refuse } from '../errors.ts';
import { ffmpeg } from '../media/ffmpeg.ts';
import type { MediaStore } from '../media/store.ts';
import { cutWith, type TakeMedia } from '../cut/cut.ts';
import { cutMedia, takeFiles } from './hand-over.ts';
import { pieceOfFrame, STANDARD } from './pieces.ts';
import { renderPiece } from './render.ts';

/** One frame of the finished video as a PNG, rendered as the export renders it. */
async function framePng(
  assembly: Assembly,
  media: ReadonlyMap<string, TakeMedia>,
  ms: number,
  store: MediaStore,
): Promise<Buffer> {
  const last = Math.max(0, firstFrameFrom(assembly.durationMs) - 1);
  const frame = Math.min(last, firstFrameFrom(ms));
  const piece = pieceOfFrame(assembly, media, frame, STANDARD);
  if (!piece) throw refuse(422, 'empty-lesson', teacherText('server.no-picture-yet'));
  const folder = await mkdtemp(path.join(os.tmpdir(), 'zest-frame-'));
  try {
    const [picture = ''] = await renderPiece(
      piece,
      STANDARD,
      folder,
      (sha) => store.fileOf(sha),
      () => undefined,
    );
    const png = path.join(folder, 'frame.png');
    await ffmpeg(['-i', picture, '-frames:v', '1', '-update', '1', png]);
    return await readFile(png);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** A file of a lesson's cut, made now. `ms` is the moment of a single frame. */
export async function makeCutFile(
  name: CutFile,
  lesson: Lesson,
  takes: readonly TakeRow[],
  ms: number,
  store: MediaStore,
): Promise<{ type: string; content: string | Buffer }> {
  const { assembly, media } = await cutWith(lesson, takes, store);
  const known = cutMedia(takes, takeFiles(takes, 'takes'), new Set(media.keys()));
  switch (name) {
    case 'captions.vtt':
      return { type: 'text/vtt', content: captionsToWebVtt(assembly) };
    case 'captions.srt':
      return { type: 'application/x-subrip', content: captionsToSubRip(assembly) };
    case 'chapters.txt':
      return { type: 'text/plain', content: chaptersText(assembly) };
    case 'cut.otio':
      return { type: 'application/json', content: timelineOf(assembly, known) };
    case 'cut.edl':
      return { type: 'text/plain', content: editList(assembly, known) };
    case 'frame.png':
      return { type: 'image/png', content: await framePng(assembly, media, ms, store) };
  }
}
