import { readFileSync } from 'node:fs';
import { parse } from '@formatjs/icu-messageformat-parser';
import type { Plugin as BundlePlugin } from 'esbuild';
import type { Plugin } from 'vite';

/**
 * Message catalogues, as the build finds them: one file a language, texts in ICU MessageFormat by
 * name.
 */
const CATALOGUE = /\/words\/(?:\w+\/)?[a-z]{2}\.json$/;

/**
 * A catalogue as the pages load it, as JSON: texts that take nothing stay texts, others are parsed
 * here and not in every browser.
 */
function compiled(file: string): string {
  const texts = JSON.parse(readFileSync(file, 'utf8')) as Record<string, string>;
  return JSON.stringify(
    Object.fromEntries(
      Object.entries(texts).map(([name, text]) => [name, /[{'<]/.test(text) ? parse(text) : text]),
    ),
  );
}

/** Catalogues for Vite. */
export const catalogues = (): Plugin => ({
  name: 'catalogues',
  enforce: 'pre',
  load: (id) => (CATALOGUE.test(id) ? compiled(id) : null),
});

/** Catalogues for esbuild. */
export const cataloguesForBundle: BundlePlugin = {
  name: 'catalogues',
  setup: (build) =>
    build.onLoad({ filter: CATALOGUE }, ({ path }) => ({
      contents: compiled(path),
      loader: 'json',
    })),
};

/** With every text parsed beforehand, the formatter leaves its parser out. */
export const WITHOUT_PARSER = {
  '@formatjs/icu-messageformat-parser': '@formatjs/icu-messageformat-parser/no-parser.js',
};
