import { afterEach, describe, expect, it } from 'vitest';
import { languageFor, say, speak, spokenLanguage } from './index.ts';

describe('the language of the page', () => {
  afterEach(() => speak('en'));

  it('is the first it can speak, or English', () => {
    expect([['de-AT'], ['sv', 'fr-CA'], ['sv'], [], ['PT-br', 'de']].map(languageFor)).toEqual([
      'de',
      'fr',
      'en',
      'en',
      'pt',
    ]);
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
  });
});
