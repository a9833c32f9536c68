import type { Response } from 'express';

const streams = new Set<Response>();

/** Notes an answer that goes on until somebody ends it. */
export function goesOn(res: Response): void {
  streams.add(res);
  res.once('close', () => streams.delete(res));
}

/** Ends every answer that goes on; the pages connect again, where a server answers. */
export const endStreams = (): void => streams.forEach((res) => void res.end());
