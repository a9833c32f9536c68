import {
  applyEdit,
  beginEditing,
  makeBlock,
  makeLesson,
  placeBlocks,
  type Lesson,
} from '@zest/core/lesson';
import { describe, expect, it } from 'vitest';
import { dropPlace } from './drop-place.ts';

const lesson: Lesson = {
  ...makeLesson('Letters', () => 'l'),
  sections: ['abcd', 'ef', ''].map((letters, i) => ({
    id: `s${i}`,
    title: '',
    blocks: [...letters].map((id) => makeBlock('talk', () => id)),
  })),
};
const dropped = (dragged: string, over: string, chosen = dragged) => {
  const moving = new Set(chosen);
  const place = dropPlace(lesson, dragged, over, moving);
  const after = place
    ? applyEdit(beginEditing(lesson), 'Move', placeBlocks(moving, place.sectionId, place.beforeId))
        .lesson
    : lesson;
  return after.sections.map(({ blocks }) => blocks.map(({ id }) => id).join('')).join('|');
};

describe('a block that is dropped', () => {
  it.each([
    ['a', 'c', 'bcad|ef|'],
    ['d', 'b', 'adbc|ef|'],
    ['a', 'd', 'bcda|ef|'],
    ['a', 'f', 'bcd|eaf|'],
    ['e', 'a', 'eabcd|f|'],
    ['b', 's2', 'acd|ef|b'],
    ['b', 's0', 'acdb|ef|'],
    ['a', 'a', 'abcd|ef|'],
    ['a', 'nowhere', 'abcd|ef|'],
  ])('%s over %s: %s', (dragged, over, expected) => expect(dropped(dragged, over)).toBe(expected));

  it('takes the others chosen with it, in their order', () => {
    expect(dropped('a', 'd', 'ab')).toBe('cdab|ef|');
    expect(dropped('c', 'e', 'ca')).toBe('bd|acef|');
    // Dropped over one that moves as well, they go before the next that stays.
    expect(dropped('a', 'b', 'ab')).toBe('abcd|ef|');
  });
});
