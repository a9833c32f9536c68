import { findingWords, harms } from '@zest/core/checks';
import { lessonAt } from '../db/lessons.ts';
import { foldersOf } from '../config.ts';
import { TakeRow } from '../db/models.ts';
import { diskStore } from '../media/store.ts';
import { checkOf } from '../publish/check.ts';
import { lessonRow, withDatabase } from './with-database.ts';

/**
 * The findings of a lesson's newest revision, as text or JSON.
 * @throws with words when the lesson is unknown
 */
export async function check(dataDir: string, lessonId: string, asJson: boolean): Promise<string> {
  return withDatabase(dataDir, async () => {
    const { id, revision } = await lessonRow(lessonId);
    const lesson = await lessonAt(id, revision);
    const rows = await TakeRow.findAll({ where: { lessonId: id } });
    const store = diskStore(foldersOf(dataDir).media);
    const findings = await checkOf(lesson, rows, store);
    if (asJson)
      return JSON.stringify(
        findings.map((finding) => ({ ...finding, ...findingWords(finding) })),
        null,
        2,
      );
    const open = findings.filter(({ waived }) => waived === null);
    const lines = harms.flatMap((harm) => {
      const ofHarm = open.filter((finding) => finding.harm === harm);
      return ofHarm.length === 0
        ? []
        : [
            `A student ${harm}:`,
            ...ofHarm.map(findingWords).map(({ say, why }) => `  ${say}\n    ${why}`),
          ];
    });
    return [...lines, `${open.length} to look at, ${findings.length - open.length} ignored.`].join(
      '\n',
    );
  });
}
