import { createRequire } from 'node:module';
import path from 'node:path';
import { Font } from '@react-pdf/renderer';

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

function register(): string[] {
  const families = FONTS.flatMap(([name, subsets]) => {
    const folder = path.join(
      path.dirname(require.resolve(`@fontsource/${name}/package.json`)),
      'files',
    );
    return subsets.map((subset) => {
      const family = `${name}-${subset}`;
      Font.register({
        family,
        fonts: [400, 700].map((weight) => ({
          src: path.join(folder, `${name}-${subset}-${weight}-normal.woff`),
          fontWeight: weight,
        })),
      });
      return family;
    });
  });
  // Words stay whole: hyphens of one language are wrong in another.
  Font.registerHyphenationCallback((word) => [word]);
  return families;
}

/** The families of a print, each standing in for letters the ones before do not have. */
export const printFonts = register();

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
