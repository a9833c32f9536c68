import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  ArchiveFault,
  checkEntries,
  LESSON_NAME,
  MANIFEST_NAME,
  mediaName,
  readManifest,
  type ArchiveManifest,
} from './index.ts';

const hex = (n: number) => n.toString(16).padStart(64, '0');
const manifests = fc
  .uniqueArray(fc.nat(1_000), { maxLength: 6 })
  .map((numbers): ArchiveManifest => ({
    format: 'zest-archive',
    version: 2,
    lesson: { sha256: hex(7), bytes: 900 },
    media: numbers.map((n) => ({ sha256: hex(n), bytes: n + 1 })),
    takes: numbers.map((n) => ({
      takeId: `t${n}`,
      blockId: 'b',
      name: 'Take',
      source: 'camera' as const,
      sha256: hex(n),
      marked: n % 2 ? { startMs: n, endMs: null, rate: null } : null,
      reason: null,
      note: '',
    })),
  }));
const entriesOf = ({ lesson, media }: ArchiveManifest) => [
  { name: MANIFEST_NAME, bytes: 10 },
  { name: LESSON_NAME, bytes: lesson.bytes },
  ...media.map(({ sha256, bytes }) => ({ name: mediaName(sha256), bytes })),
];

describe('the list of contents of an archive', () => {
  it('comes back as it was written, and holds for just what it lists', () => {
    fc.assert(
      fc.property(
        manifests,
        fc.nat(),
        fc.constantFrom('drop', 'twice', 'size', 'stranger' as const),
        (manifest, pick, change) => {
          expect(readManifest(JSON.stringify(manifest))).toEqual(manifest);
          const entries = entriesOf(manifest);
          expect(() => checkEntries(manifest, entries)).not.toThrow();
          // The manifest's own size is listed nowhere.
          const at = 1 + (pick % (entries.length - 1));
          const wrong = {
            drop: entries.filter((_entry, i) => i !== at),
            twice: [...entries, entries[at]!],
            size: entries.map((entry, i) =>
              i === at ? { ...entry, bytes: entry.bytes + 1 } : entry,
            ),
            stranger: [...entries, { name: '../evil', bytes: 1 }],
          }[change];
          expect(() => checkEntries(manifest, wrong)).toThrow(ArchiveFault);
        },
      ),
    );
  });

  it.each([
    ['', 'damaged'],
    ['[]', 'not a lesson archive'],
    ['{"format":"zest-archive","version":3}', 'Update the program'],
    ['{"format":"zest-archive","version":1}', 'wrong at lesson'],
  ])('%j is refused in words', (text, words) => expect(() => readManifest(text)).toThrow(words));
});
