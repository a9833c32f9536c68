import { expect, it } from 'vitest';
import { choiceBoxes } from './paint-choices.ts';

it.each([2, 3, 4, 5, 6])('%d choices stand apart and in the picture, in either shape', (n) => {
  for (const [shape, width, height] of [
    ['wide', 1_280, 720],
    ['upright', 720, 1_280],
  ] as const) {
    const boxes = choiceBoxes(n, shape);
    expect(boxes).toHaveLength(n);
    boxes.forEach((box, i) => {
      expect(box.x >= 0 && box.x + box.width <= width).toBe(true);
      expect(box.y >= 0 && box.y + box.height <= height).toBe(true);
      for (const other of boxes.slice(i + 1))
        expect(
          other.x >= box.x + box.width ||
            box.x >= other.x + other.width ||
            other.y >= box.y + box.height ||
            box.y >= other.y + other.height,
        ).toBe(true);
    });
  }
});
