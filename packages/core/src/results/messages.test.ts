import { describe, expect, it } from 'vitest';
import { messageLanguage, messageLanguages, messageTo, plainFigure } from './messages.ts';

describe('messages to families', () => {
  it.each(messageLanguages)(
    'in %s name who it is and what was reached, and leave no place open',
    (language) => {
      const values = { name: 'Amber Otter', title: 'Fast skips', from: '0,8/s', to: '0,9/s' };
      const improved = messageTo(language, 'improved', values);
      for (const value of Object.values(values)) expect(improved).toContain(value);
      for (const kind of ['tried', 'quiet'] as const)
        expect(messageTo(language, kind, values)).toContain('Amber Otter');
      for (const kind of ['improved', 'tried', 'quiet'] as const)
        expect(messageTo(language, kind, values)).not.toMatch(/[{}]/);
    },
  );

  it('are in the language of the family, or in English', () => {
    expect([
      messageLanguage('pt-BR'),
      messageLanguage('DE'),
      messageLanguage('fi'),
      messageLanguage(null),
    ]).toEqual(['pt', 'de', 'en', 'en']);
    expect(plainFigure({ measure: 'count', isRate: true }, 0.8333, 'de')).toBe('0,83/s');
    expect(plainFigure({ measure: 'time', isRate: false }, 12.44, 'en')).toBe('12.4 s');
    expect(plainFigure({ measure: 'points', isRate: false }, 15, 'tr')).toBe('15');
  });
});
