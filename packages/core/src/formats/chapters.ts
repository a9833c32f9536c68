import type { Assembly } from '../assembly/index.ts';
import { clockText } from '../time/index.ts';
import { lessonWord } from '../words/index.ts';

type Chapters = Pick<Assembly, 'chapters' | 'words'>;

const named = (title: string, i: number, { language }: Assembly['words']) =>
  title.replace(/\s+/g, ' ').trim() || lessonWord(language, 'title.part', { n: i + 1 });

/** One line a chapter, its time and its title, as video pages take them in a description. */
export function chaptersText({ chapters, words }: Chapters): string {
  return chapters
    .map(({ startMs, title }, i) => `${clockText(startMs)} ${named(title, i, words)}\n`)
    .join('');
}

/** Chapters as ffmpeg's metadata file, from which they go into the video file itself. */
export function chaptersMetadata({ chapters, words }: Chapters): string {
  const escaped = (text: string) => text.replace(/[=;#\\\n]/g, (c) => `\\${c}`);
  return [
    ';FFMETADATA1',
    ...chapters.map(
      ({ startMs, endMs, title }, i) =>
        `[CHAPTER]\nTIMEBASE=1/1000\nSTART=${startMs}\nEND=${endMs}\ntitle=${escaped(named(title, i, words))}`,
    ),
    '',
  ].join('\n');
}
