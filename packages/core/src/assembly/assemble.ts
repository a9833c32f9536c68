import { allKit, type Kit, type Lesson } from '../lesson/index.ts';
import { scheduleLesson } from '../schedule/index.ts';
import { placeBlock } from './place-block.ts';
import { emptyLanes, type Assembly, type TakeFacts } from './types.ts';

/**
 * The lesson assembled: every block in order with its take, its clocks, counters, cues, cautions and
 * captions. A timed block lasts what the plan says; a talk with footage lasts as long as the
 * footage. A block without a usable take becomes a card, so the lesson can always be watched whole.
 * Changes by hand are made where they have a place; those that have none any more are listed.
 * @param takes the takes whose working copies are ready, by id
 */
export function assemble(lesson: Lesson, takes: ReadonlyMap<string, TakeFacts>): Assembly {
  const { music } = lesson.finish.sound;
  const cut: Assembly = {
    title: lesson.title,
    durationMs: 0,
    shape: 'wide',
    words: { language: lesson.settings.language, other: otherWords(lesson) },
    look: lesson.finish.look,
    sound: { ...lesson.finish.sound, music: music && takes.has(music.takeId) ? music : null },
    segments: [],
    lanes: emptyLanes(),
    captions: [],
    sentences: [],
    pauses: [],
    chapters: [],
    blocks: [],
    tones: [],
    spoken: { language: lesson.settings.counts.language, calls: [] },
    dropped: [],
  };
  const { sections } = scheduleLesson(lesson);
  const titles = sections.map(({ section }) => section.title);
  const usedKit = new Set<string>();
  for (const [s, section] of sections.entries()) {
    const startMs = cut.durationMs;
    for (const [b, planned] of section.blocks.entries()) {
      const newKit = allKit(planned.block).filter(
        (item) => item.name.trim() !== '' && !usedKit.has(kitKey(item)),
      );
      for (const item of newKit) usedKit.add(kitKey(item));
      placeBlock(cut, planned, takes, {
        lesson,
        sections: titles,
        section: s,
        isFirstOfSection: b === 0,
        newKit,
      });
    }
    if (cut.durationMs > startMs)
      cut.chapters.push({ title: section.section.title, startMs, endMs: cut.durationMs });
  }
  return cut;
}

/** The second language's words, where both are to be read. */
function otherWords({ finish, second }: Lesson): Assembly['words']['other'] {
  if (finish.look.languages !== 'both' || !second) return null;
  return {
    language: second.language,
    texts: Object.fromEntries(
      second.texts
        .filter(({ other }) => other.trim() !== '')
        .map(({ text, other }) => [text, other]),
    ),
  };
}

/** The same thing for each and for the group are two. */
const kitKey = ({ name, share }: Kit) => `${share} ${name.trim().toLowerCase()}`;

/** Ids of all takes a cut shows or is heard in. */
export function takesIn({ segments, sound: { music } }: Assembly): Set<string> {
  const sources = segments.flatMap(({ source, under, beside, sound }) => [
    source,
    under?.source,
    beside?.source,
    sound?.source,
  ]);
  return new Set([
    ...sources.flatMap((source) => (source?.kind === 'take' ? [source.takeId] : [])),
    ...(music ? [music.takeId] : []),
  ]);
}
