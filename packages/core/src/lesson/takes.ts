import type { Block } from './blocks.ts';
import type { Edit } from './edits.ts';
import type { Lesson } from './schema.ts';

/** Ids of the takes a block shows or is heard in, its footage first. */
export function takesOf({ footage, edits }: Block): string[] {
  return [
    ...(footage ? [footage.takeId] : []),
    ...edits.flatMap((edit) => ('takeId' in edit ? [edit.takeId] : [])),
  ];
}

/** The lesson with its takes named anew; footage and changes whose take is nowhere are left out. */
export function withTakes(lesson: Lesson, idOf: ReadonlyMap<string, string>): Lesson {
  const sections = lesson.sections.map((section) => ({
    ...section,
    blocks: section.blocks.map((block): Block => {
      const takeId = block.footage && idOf.get(block.footage.takeId);
      const edits = block.edits.flatMap((edit): Edit[] => {
        if (!('takeId' in edit)) return [edit];
        const newId = idOf.get(edit.takeId);
        return newId === undefined ? [] : [{ ...edit, takeId: newId }];
      });
      return {
        ...block,
        edits,
        footage: block.footage && takeId ? { ...block.footage, takeId } : null,
      };
    }),
  }));
  const { sound } = lesson.finish;
  const musicId = sound.music && idOf.get(sound.music.takeId);
  return {
    ...lesson,
    finish: {
      ...lesson.finish,
      sound: {
        ...sound,
        music:
          sound.music && musicId !== undefined && musicId !== null
            ? { ...sound.music, takeId: musicId }
            : null,
      },
    },
    sections,
  };
}
