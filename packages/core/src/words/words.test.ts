import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { pluralForms, takes } from '../testing/catalogues.ts';
import {
  labelText,
  lessonLanguages,
  lessonWord,
  paperWord,
  speakToTeachers,
  teacherLanguage,
  teacherLanguages,
  teacherText,
} from './index.ts';

/** The texts of a catalogue's folder as they stand there, by file. */
function cataloguesIn(folder: string): Map<string, Record<string, string>> {
  const files = readdirSync(folder).filter((name) => name.endsWith('.json'));
  return new Map(
    files
      .sort()
      .map((file) => [
        file,
        JSON.parse(readFileSync(path.join(folder, file), 'utf8')) as Record<string, string>,
      ]),
  );
}

const TEN = ['ar', 'de', 'en', 'es', 'fr', 'it', 'nl', 'pl', 'pt', 'tr'].map((l) => `${l}.json`);
const student = path.join(import.meta.dirname, '../../../../apps/web/src/follow/words');
const folders = ['lesson', 'paper'].map((name) => path.join(import.meta.dirname, name));

describe.each([...folders, student])('the catalogue in %s', (folder) => {
  const catalogues = cataloguesIn(folder);
  const english = catalogues.get('en.json') ?? {};

  it('has every text in ten languages, with the same values', () => {
    expect([...catalogues.keys()]).toEqual(TEN);
    for (const [file, texts] of catalogues) {
      expect([file, Object.keys(texts)]).toEqual([file, Object.keys(english)]);
      for (const [name, text] of Object.entries(texts)) {
        expect(text.trim(), `${file} ${name}`).not.toBe('');
        expect([file, name, takes(text)]).toEqual([file, name, takes(english[name] ?? '')]);
      }
    }
  });

  it('has no plural forms its language does not know (CLDR, as the run-time has it), and one for all else', () => {
    for (const [file, texts] of catalogues) {
      const known: string[] = new Intl.PluralRules(file.slice(0, 2)).resolvedOptions()
        .pluralCategories;
      for (const [name, text] of Object.entries(texts))
        for (const forms of pluralForms(text)) {
          expect([file, name, forms.filter((form) => !known.includes(form))]).toEqual([
            file,
            name,
            [],
          ]);
          expect(forms).toContain('other');
        }
    }
  });
});

describe('words of the program’s own', () => {
  it('are said in the language’s forms, and in English where it is not known', () => {
    const tokens = (language: string) =>
      [1, 3, 5].map((left) => lessonWord(language, 'count.tokens', { left }));
    expect(tokens('en')).toEqual(['1 token left', '3 tokens left', '5 tokens left']);
    expect(tokens('pl')).toEqual(['został 1 żeton', 'zostały 3 żetony', 'zostało 5 żetonów']);
    expect(tokens('fi')).toEqual(tokens('en'));
    expect(lessonWord('de-AT', 'phase.rest')).toBe('Pause');
    expect(paperWord('fr', 'plan.blocks', { n: 2 })).toBe('2 blocs');
    expect(lessonLanguages).toHaveLength(TEN.length - 1);
  });

  it('give way to nothing: a teacher’s text that reads like one of them stays as it is', () => {
    expect(labelText({ text: 'Rest' }, 'de')).toBe('Rest');
    expect(labelText({ own: 'phase.rest' }, 'de')).toBe('Pause');
  });
});

describe('the teacher’s catalogues', () => {
  const root = path.join(import.meta.dirname, '../../../..');
  const catalogues = cataloguesIn(path.join(import.meta.dirname, 'teacher'));
  const texts = catalogues.get('en.json') ?? {};

  it('are whole in every language that can be chosen, with the same values and forms for all else', () => {
    const chosen = Object.keys(teacherLanguages).map((language) => `${language}.json`);
    expect([...catalogues.keys()]).toEqual(chosen.sort());
    for (const [file, said] of catalogues) {
      expect([file, Object.keys(said)]).toEqual([file, Object.keys(texts)]);
      for (const [name, text] of Object.entries(said)) {
        expect(text.trim(), `${file} ${name}`).not.toBe('');
        expect([file, name, takes(text)]).toEqual([file, name, takes(texts[name] ?? '')]);
        const forms = pluralForms(text);
        expect(
          forms.every((of) => of.includes('other')),
          `${file} ${name}`,
        ).toBe(true);
      }
    }
  });

  it('speak the language that was chosen, and English again', async () => {
    const said = () => [1, 3].map((students) => teacherText('class.size', { students }));
    await speakToTeachers('de');
    expect([teacherLanguage(), ...said()]).toEqual(['de', '1 Kind', '3 Kinder']);
    await speakToTeachers('es');
    expect(said()).toEqual(['1 alumno', '3 alumnos']);
    await speakToTeachers('en');
    expect(said()).toEqual(['1 student', '3 students']);
  });

  it('have no text that nothing says', () => {
    const sources = [
      'apps/web/src',
      'apps/server/src',
      'packages/contract/src',
      'packages/core/src',
    ].flatMap((folder) =>
      readdirSync(path.join(root, folder), { recursive: true, encoding: 'utf8' })
        .filter((name) => /(?<!\.test)\.tsx?$/.test(name))
        .map((name) => readFileSync(path.join(root, folder, name), 'utf8')),
    );
    const code = sources.join('\n');
    // Words chosen by what they are about: `level.${level}`.
    const begun = [...new Set([...code.matchAll(/`([a-z-]+\.[\w.-]*)\$\{/g)].map(([, to]) => to))];
    const unsaid = Object.keys(texts).filter(
      (name) => !code.includes(`'${name}'`) && !begun.some((to) => name.startsWith(to ?? name)),
    );
    expect(unsaid).toEqual([]);
  });
});
