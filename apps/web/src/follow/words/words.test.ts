import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { isPluralElement, isSelectElement, isTagElement, isArgumentElement, isPoundElement, isLiteralElement, parse, type MessageFormatElement } from '@formatjs/icu-messageformat-parser';
import { afterEach, describe, expect, it } from 'vitest';
import { languageFor, say, speak, spokenLanguage } from './index.ts';

const catalogueOf = (file: string) => JSON.parse(readFileSync(path.join(import.meta.dirname, file), 'utf8')) as Record<string, string>;
const files = readdirSync(import.meta.dirname).filter((name) => name.endsWith('.json'));
const english = catalogueOf('en.json');

/** Names of what a text takes. */
function takes(elements: readonly MessageFormatElement[]): string[] {
  return elements.flatMap((element) => {
    if (isLiteralElement(element) || isPoundElement(element)) return [];
    if (isArgumentElement(element)) return [element.value];
    if (isPluralElement(element) || isSelectElement(element)) return [element.value, ...Object.values(element.options).flatMap(({ value }) => takes(value))];
    throw new Error(`Not expected in a text: ${isTagElement(element) ? element.value : element.type}`);
  });
}
const sorted = (names: readonly string[]) => [...new Set(names)].sort();

describe('the texts of the student’s page', () => {
  it('are all there in ten languages, with the same values', () => {
    expect(files.sort()).toEqual(['ar', 'de', 'en', 'es', 'fr', 'it', 'nl', 'pl', 'pt', 'tr'].map((tag) => `${tag}.json`));
    for (const file of files) {
      const own = catalogueOf(file);
      expect([file, Object.keys(own)]).toEqual([file, Object.keys(english)]);
      for (const [name, text] of Object.entries(own)) {
        expect(text.trim(), `${file} ${name}`).toBe(text);
        expect([file, name, sorted(takes(parse(text)))]).toEqual([file, name, sorted(takes(parse(english[name] ?? '')))]);
      }
    }
  });

  it('have no plural forms their language does not know (CLDR, as the run-time has it), and one for all else', () => {
    for (const file of files) {
      const forms: string[] = new Intl.PluralRules(file.slice(0, 2)).resolvedOptions().pluralCategories;
      for (const [name, text] of Object.entries(catalogueOf(file))) {
        for (const element of parse(text)) {
          if (!isPluralElement(element)) continue;
          const own = Object.keys(element.options);
          expect([file, name, own.filter((form) => !forms.includes(form)), own.includes('other')]).toEqual([file, name, [], true]);
        }
      }
    }
  });
});

describe('the language of the page', () => {
  afterEach(() => speak('en'));

  it('is the first it can speak, or English', () => {
    expect([['de-AT'], ['sv', 'fr-CA'], ['sv'], [], ['PT-br', 'de']].map(languageFor)).toEqual(['de', 'fr', 'en', 'en', 'pt']);
  });

  it('is the one asked for last, in whatever order the texts come', async () => {
    await Promise.all([speak('fr'), speak('de')]);
    expect([spokenLanguage(), say('lesson.stop')]).toEqual(['de', 'Stopp']);
    await Promise.all([speak('ar'), speak('de')]);
    expect(spokenLanguage()).toBe('de');
  });

  it('says numbers in the forms of the language', async () => {
    const points = (...all: number[]) => all.map((n) => say('value.points', { n }));
    expect(points(1, 2)).toEqual(['1 point', '2 points']);
    await speak('pl');
    expect(points(1, 3, 5, 22)).toEqual(['1 punkt', '3 punkty', '5 punktów', '22 punkty']);
    await speak('ar');
    expect(points(2)).toEqual(['نقطتان']);
    expect(say('end.back')).toBe('العودة إلى البداية');
    await speak('en');
    expect(say('kit.and', { some: '2 each', more: '1 for the group' })).toBe('2 each, and 1 for the group');
  });
});
