import { describe, expect, it } from 'vitest';
import { fileFault } from './uploads.ts';

describe('files chosen for upload', () => {
  it.each([
    ['clip.MP4', ''],
    ['clip.mov', 'video/quicktime'],
    ['noname', 'video/webm'],
    ['clip.mkv', 'application/octet-stream'],
  ])('%s (%s) may be sent', (name, type) =>
    expect(fileFault(new File(['x'], name, { type }))).toBeNull(),
  );

  it.each([
    [new File(['x'], 'list.txt', { type: 'text/plain' }), 'is not a video'],
    [new File(['x'], 'mp4', { type: '' }), 'is not a video'],
    [new File([], 'clip.mp4', { type: 'video/mp4' }), 'is empty'],
  ])('%s is refused in words', (file, words) => expect(fileFault(file)).toContain(words));
});
