import { teacherText } from '../words/index.ts';
import type { Block } from './blocks.ts';
import type { Lesson, Section } from './schema.ts';

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
const named = (title: string) => title.trim() || teacherText('untitled');

/**
 * What is seen or heard of a block in the finished video; how it is filmed or weighed in ledgers is
 * not.
 */
function seenOf({
  shots: _shots,
  extent: _extent,
  locked: _locked,
  regions: _regions,
  mets: _mets,
  effort: _effort,
  skill: _skill,
  ...seen
}: Block): unknown {
  return seen;
}

function blocksIn(sections: readonly Section[]): Map<string, Block> {
  return new Map(sections.flatMap(({ blocks }) => blocks).map((block) => [block.id, block]));
}

/**
 * What differs in the finished video between two states of a lesson, in a teacher's words: blocks
 * by their titles, then what concerns the whole. Empty when nothing that is seen or heard does.
 */
export function videoChanges(before: Lesson, after: Lesson): string[] {
  const [old, now] = [blocksIn(before.sections), blocksIn(after.sections)];
  const changes: string[] = [];
  for (const [id, block] of now) {
    const known = old.get(id);
    if (!known) changes.push(teacherText('lesson.is-new', { title: named(block.title) }));
    else if (!same(seenOf(known), seenOf(block))) changes.push(named(block.title));
  }
  for (const [id, block] of old)
    if (!now.has(id)) changes.push(teacherText('lesson.is-gone', { title: named(block.title) }));
  const order = (sections: readonly Section[], others: ReadonlyMap<string, Block>) =>
    sections.map(({ title, blocks }) => [
      title,
      blocks.map(({ id }) => id).filter((id) => others.has(id)),
    ]);
  if (!same(order(before.sections, now), order(after.sections, old)))
    changes.push(teacherText('lesson.order'));
  if (!same(before.finish.look, after.finish.look)) changes.push(teacherText('lesson.look'));
  if (!same(before.finish.sound, after.finish.sound)) changes.push(teacherText('lesson.sound'));
  if (!same(before.second, after.second)) changes.push(teacherText('lesson.second-language'));
  if (
    !same(
      [before.settings, before.title, before.series.level, before.audience],
      [after.settings, after.title, after.series.level, after.audience],
    )
  )
    changes.push(teacherText('lesson.settings'));
  return changes;
}
