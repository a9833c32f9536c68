import { z } from 'zod';

export const exportSizes = ['480', '720', '1080'] as const;
/** A GIF is a silent clip of one block. */
export const exportFormats = ['mp4', 'webm', 'gif'] as const;
export const exportShapes = ['wide', 'upright'] as const;
export const exportLanguages = ['first', 'second'] as const;
/** For which hand: as it was filmed, or turned round for the other hand. */
export const exportHands = ['as filmed', 'other hand'] as const;
/** What a finished video is to be. */
export const exportOrderSchema = z.strictObject({
  /** The shorter side of the frame, in lines. */
  size: z.enum(exportSizes).default('720'),
  format: z.enum(exportFormats).default('mp4'),
  /** With clocks, counts, cues and arrows burned in. */
  overlays: z.boolean().default(true),
  /** With the captions burned in; else they are a track of the file. */
  captions: z.boolean().default(false),
  hand: z.enum(exportHands).default('as filmed'),
  /** 16:9, or 9:16 with the picture above and what is said about it below. */
  shape: z.enum(exportShapes).default('wide'),
  language: z.enum(exportLanguages).default('first'),
  /** One block alone, as a short clip; null: the whole lesson. */
  blockId: z.string().max(40).nullable().default(null),
});
export type ExportOrder = z.infer<typeof exportOrderSchema>;

/** What the sound of an export is called. */
export const soundFile = (format: ExportOrder['format']): string =>
  format === 'webm' ? 'lesson-sound.webm' : 'lesson-sound.m4a';

/** Files of the cut that are made when they are asked for. */
export const cutFiles = [
  'captions.vtt',
  'captions.srt',
  'chapters.txt',
  'cut.otio',
  'cut.edl',
  'frame.png',
] as const;
export type CutFile = (typeof cutFiles)[number];

/**
 * Which footage goes with a cut that is handed over: the working copies, or the files as they were
 * filmed.
 */
export const handOverFootage = ['takes', 'originals'] as const;
export type HandOverFootage = (typeof handOverFootage)[number];

export const changeJobSchema = z.strictObject({
  /** Held back, or let go on. */
  held: z.boolean().optional(),
  /** Put before all others that wait. */
  first: z.literal(true).optional(),
});
export type ChangeJob = z.infer<typeof changeJobSchema>;

/** What was measured of a finished export. */
export const exportResultSchema = z.object({
  revision: z.number(),
  frames: z.number(),
  durationMs: z.number(),
  bytes: z.number(),
  loudnessLufs: z.number().nullable(),
  truePeakDb: z.number().nullable(),
});

export const jobSchema = z.object({
  id: z.string(),
  kind: z.enum(['ingest', 'watch', 'renditions', 'export']),
  /** The take of an ingest, of a watching or of its renditions, the lesson of an export. */
  subjectId: z.string(),
  state: z.enum(['queued', 'running', 'held', 'done', 'failed', 'cancelled']),
  /** 0 to 1. */
  progress: z.number(),
  /** Milliseconds to go at the present pace; null while it cannot be told. */
  leftMs: z.number().nullable(),
  /** What is being done, or what went wrong and what to do. */
  message: z.string(),
  createdAt: z.string(),
  /** What an export is to be; null for other jobs. */
  order: exportOrderSchema.nullable(),
  /** For a finished export. */
  result: exportResultSchema.nullable(),
  /**
   * What was changed since in the finished video; null when it is not known, empty when nothing is
   * seen or heard of it.
   */
  changedSince: z.array(z.string()).nullable(),
});
export type Job = z.infer<typeof jobSchema>;
