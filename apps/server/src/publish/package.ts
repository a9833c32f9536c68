import { createHash } from 'node:crypto';
import { readdir } from 'node:fs/promises';
import path from 'node:path';
import type { Readable } from 'node:stream';
import type { PackagedLesson, PackageKind } from '@zest/contract';
import { scormManifest } from '@zest/core/formats';
import yazl from 'yazl';
import type { MediaStore } from '../media/store.ts';

const PAGE = 'index.html';

const page = (language: string) => `<!doctype html>
<html lang="${language}">
  <head>
    <meta charset="utf-8" />
    <meta name="viewport" content="width=device-width, initial-scale=1" />
    <title>Lesson</title>
    <link rel="stylesheet" href="player.css" />
  </head>
  <body>
    <div id="root"></div>
    <script src="lesson.js"></script>
    <script src="player.js"></script>
  </body>
</html>
`;

/**
 * A lesson as a script that leaves it behind for the page: a page opened from a folder may not read
 * files.
 */
function lessonScript(packed: PackagedLesson): string {
  // What would end a script or a line of one is written as its code.
  const escaped = (letter: string) => `\\u${letter.charCodeAt(0).toString(16).padStart(4, '0')}`;
  return `window.zestLesson = ${JSON.stringify(packed).replace(/[<\u2028\u2029]/g, escaped)};\n`;
}

async function filesIn(folder: string): Promise<string[]> {
  const found = await readdir(folder, { recursive: true, withFileTypes: true });
  return found
    .filter((entry) => entry.isFile())
    .map((entry) =>
      path.relative(folder, path.join(entry.parentPath, entry.name)).split(path.sep).join('/'),
    );
}

/**
 * A lesson that plays without a server, as a zip: a folder for a memory stick, or the same as a
 * SCORM 1.2 package.
 * @param shas content of the takes it shows, by id
 * @param pageDir folder of the built page for packages
 */
export async function packLesson(
  kind: PackageKind,
  variants: PackagedLesson['variants'],
  shas: ReadonlyMap<string, string>,
  store: MediaStore,
  pageDir: string,
): Promise<Readable> {
  const first = variants[0]?.lesson;
  const key = createHash('sha256')
    .update(first?.lessonId ?? '')
    .digest('hex')
    .slice(0, 24);
  const parts = await filesIn(pageDir);
  const takes = [...shas].map(([id, sha]) => ({ name: `takes/${id}.mp4`, sha }));
  const zip = new yazl.ZipFile();
  const add = (name: string, text: string) => zip.addBuffer(Buffer.from(text), name);
  add(PAGE, page(first?.assembly.words.language ?? 'en'));
  add('lesson.js', lessonScript({ key, variants }));
  for (const name of parts) zip.addFile(path.join(pageDir, name), name);
  // Video does not get smaller.
  for (const { name, sha } of takes)
    zip.addFile(await store.fileOf(sha), name, { compress: false });
  if (kind === 'scorm')
    add(
      'imsmanifest.xml',
      scormManifest({
        id: key,
        title: first?.title ?? '',
        page: PAGE,
        files: [PAGE, 'lesson.js', ...parts, ...takes.map(({ name }) => name)],
      }),
    );
  zip.end();
  return zip.outputStream as Readable;
}
