import { countLanguages, type Lesson, type Section } from './schema.ts';

/** Where a lesson's words stand; anything under another key is no text. */
const TEXT_KEYS: ReadonlySet<string> = new Set([
  'title',
  'term',
  'plain',
  'text',
  'rule',
  'rules',
  'task',
  'right',
  'wrong',
  'name',
  'names',
  'standIn',
  'prompt',
  'question',
  'answer',
  'why',
  'words',
  'script',
  'label',
  'heading',
  'lines',
  'cautions',
  'shownBy',
]);

type Change = (text: string) => string;

/** Applies `change` to every text in `value`, however deep; the shape stays. */
function changed<T>(value: T, change: Change, isText: boolean): T {
  if (typeof value === 'string')
    return (isText && value.trim() !== '' ? change(value) : value) as T;
  if (Array.isArray(value)) return value.map((item: unknown) => changed(item, change, isText)) as T;
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, part]) => [
      key,
      changed<unknown>(part, change, TEXT_KEYS.has(key)),
    ]),
  ) as T;
}

/**
 * All texts of a lesson that students see or hear, each once, in the order they come.
 */
export function textsOf({
  title,
  outcome,
  sections,
  glossary,
}: Pick<Lesson, 'title' | 'outcome' | 'sections' | 'glossary'>): string[] {
  const found = new Set<string>([title]);
  if (outcome.trim() !== '') found.add(outcome);
  changed([sections, glossary], (text) => (found.add(text), text), false);
  return [...found];
}

/** Sentences keep their place in the script roughly when it is told in other words. */
function withScript(
  before: Section['blocks'][number],
  after: Section['blocks'][number],
): Section['blocks'][number] {
  const part = before.script.length > 0 ? after.script.length / before.script.length : 1;
  return {
    ...after,
    cues: after.cues.map((cue) => ({
      ...cue,
      anchor:
        cue.anchor === null ? null : Math.min(after.script.length, Math.round(cue.anchor * part)),
    })),
  };
}

/**
 * How one counts in another language: as it is usual there, where one counted in the lesson's own
 * and not in words of one's own.
 */
export function countsIn(
  language: string,
  { language: before, counts }: Pick<Lesson['settings'], 'language' | 'counts'>,
): Lesson['settings']['counts'] {
  const [to, from] = [language, before].map((tag) => tag.split('-')[0]?.toLowerCase());
  const known = countLanguages.find((one) => one === to);
  const follows = counts.language === from && counts.own.every((word) => word === '');
  return known && follows ? { ...counts, language: known } : counts;
}

/**
 * The lesson in its second language, the first one in its place; a text without a translation
 * stays. Without a second language, the lesson itself.
 */
export function inSecondLanguage(lesson: Lesson): Lesson {
  const { second, settings } = lesson;
  if (!second) return lesson;
  const known = new Map(
    second.texts.filter(({ other }) => other.trim() !== '').map(({ text, other }) => [text, other]),
  );
  const change: Change = (text) => known.get(text) ?? text;
  const sections = changed(lesson.sections, change, false).map((section, s) => ({
    ...section,
    blocks: section.blocks.map((block, b) =>
      withScript(lesson.sections[s]?.blocks[b] ?? block, block),
    ),
  }));
  // Two texts may have one translation; the first keeps it on the way back.
  const back = new Map([...known].reverse().map(([text, other]) => [other, text]));
  return {
    ...lesson,
    title: change(lesson.title),
    outcome: change(lesson.outcome),
    glossary: changed(lesson.glossary, change, false),
    sections,
    settings: {
      ...settings,
      language: second.language,
      counts: countsIn(second.language, settings),
    },
    second: {
      language: settings.language,
      texts: [...back].map(([text, other]) => ({ text, other })),
    },
  };
}
