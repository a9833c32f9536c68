import fc from 'fast-check';
import { expect, it } from 'vitest';
import { fromDocument, toDocument } from './script-document.ts';

it('a script and its cues come back from the editor’s document', () => {
  const line = fc.string({ unit: 'grapheme', maxLength: 20 }).map((text) => text.replaceAll('\n', ' '));
  fc.assert(
    fc.property(fc.array(line, { maxLength: 4 }), fc.array(fc.option(fc.nat(60)), { maxLength: 4 }), (lines, places) => {
      const script = lines.join('\n');
      const cues = places.map((anchor, i) => ({ id: `c${i}`, text: `cue ${i}`, anchor }));
      const back = fromDocument(toDocument(script, cues));
      expect(back.script).toBe(script);
      for (const { id, anchor } of cues) expect(back.anchors.get(id)).toBe(anchor === null ? undefined : Math.min(anchor, script.length));
    }),
  );
});
