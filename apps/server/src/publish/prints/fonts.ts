import { createRequire } from 'node:module';
import path from 'node:path';
import FontStore from '@react-pdf/font';

const require = createRequire(import.meta.url);

/**
 * Package and parts of it, in the order in which a letter is looked for. All lie in installed
 * packages.
 */
const FONTS = [
  ['atkinson-hyperlegible-next', ['latin', 'latin-ext']],
  ['noto-sans', ['greek', 'cyrillic']],
  ['noto-sans-arabic', ['arabic']],
  ['noto-sans-hebrew', ['hebrew']],
] as const;

const familyOf = (name: string, subset: string) => `${name}-${subset}`;

/** The families of a print, each standing in for letters the ones before do not have. */
export const printFonts = FONTS.flatMap(([name, subsets]) =>
  subsets.map((subset) => familyOf(name, subset)),
);

/**
 * The fonts of one document. A font remembers its glyphs, and one first met as a part of another
 * (the U of a Ü) without the letter it stands for: in a next document nobody could read or copy it.
 */
export function makeFonts(): FontStore {
  const fonts = new FontStore();
  for (const [name, subsets] of FONTS) {
    const folder = path.dirname(require.resolve(`@fontsource/${name}/package.json`));
    for (const subset of subsets)
      fonts.register({
        family: familyOf(name, subset),
        fonts: [400, 700].map((weight) => ({
          src: path.join(folder, 'files', `${name}-${subset}-${weight}-normal.woff`),
          fontWeight: weight,
        })),
      });
  }
  // Words stay whole: hyphens of one language are wrong in another.
  fonts.registerHyphenationCallback((word) => [word]);
  return fonts;
}

/** Text as the shipped fonts can print it: pictographs, which they do not have, are left out. */
export function printable(text: string): string {
  return text
    .replace(
      /[\p{Extended_Pictographic}\u{1F1E6}-\u{1F1FF}\u{1F3FB}-\u{1F3FF}\u200D\uFE0F\u20E3]/gu,
      '',
    )
    .replace(/[\u0000-\u0008\u000B-\u001F\u007F]/g, '')
    .trim();
}
