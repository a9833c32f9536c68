import * as v from 'valibot';
import type { Side } from '@zest/core/lesson';
import type { PageSetting } from './classes.ts';
import type { FollowLesson } from './shares.ts';
import type { OwnLog, SentEntries } from './log.ts';
import type { TelevisionMessage } from './television.ts';

/**
 * What pages without an account get, read by a schema library that weighs little: what they stand
 * on is looked at, and an answer of another shape is refused whole.
 */
export interface Reader<T> {
  /** The answer as what it should be; null when it is something else. */
  (body: unknown): T | null;
}

const span = { startMs: v.number(), endMs: v.number() };
const spans = v.array(v.looseObject(span));
const nullable = v.nullable(v.string());

const assembly = v.looseObject({
  durationMs: v.number(),
  shape: v.picklist(['wide', 'upright']),
  words: v.looseObject({ language: v.string() }),
  look: v.looseObject({ slots: v.looseObject({}) }),
  segments: v.array(v.looseObject({ ...span, source: v.looseObject({ kind: v.string() }) })),
  lanes: v.record(v.string(), spans),
  captions: spans,
  pauses: v.array(v.looseObject({ blockId: v.string(), practiceMs: v.number() })),
  chapters: v.array(v.looseObject({ ...span, title: v.string() })),
  blocks: v.array(v.looseObject({ ...span, blockId: v.string() })),
  tones: v.array(v.looseObject({})),
});
const rendition = v.looseObject({ lines: v.number(), bytes: v.number(), version: v.string() });
const followLesson = v.looseObject({
  title: v.string(),
  lessonId: v.string(),
  classId: nullable,
  second: nullable,
  kit: v.array(v.looseObject({ name: v.string() })),
  cautions: v.array(v.string()),
  takes: v.array(
    v.looseObject({
      id: v.string(),
      bytes: v.number(),
      version: v.string(),
      renditions: v.array(rendition),
    }),
  ),
  blocks: v.array(
    v.looseObject({
      id: v.string(),
      title: v.string(),
      levels: v.array(v.looseObject({ form: v.string(), exercise: v.nullable(v.string()) })),
      ways: v.array(v.looseObject({ players: v.string(), rules: v.string(), how: v.string() })),
    }),
  ),
  prompts: v.array(v.looseObject({ blockId: v.string() })),
  assembly,
});
const me = v.looseObject({
  token: v.string(),
  nickname: v.string(),
  hand: nullable,
  language: nullable,
  page: v.array(v.string()),
});
const ownLog = v.looseObject({
  nickname: v.string(),
  entries: v.array(
    v.looseObject({ id: v.string(), at: v.number(), body: v.looseObject({ kind: v.string() }) }),
  ),
});
const refused = v.looseObject({ id: v.string(), code: v.string(), message: v.string() });
const message = v.variant('kind', [
  v.looseObject({ kind: v.literal('state'), started: v.boolean(), atMs: v.number() }),
  v.looseObject({ kind: v.literal('command'), command: v.string() }),
  v.looseObject({ kind: v.literal('others'), count: v.number() }),
]);

const reader =
  <T>(schema: v.GenericSchema): Reader<T> =>
  (body) =>
    v.is(schema, body) ? (body as T) : null;

export const readFollowLesson = reader<FollowLesson>(followLesson);
/** Who has joined by a card. */
export interface Member {
  token: string;
  nickname: string;
  hand: Side | null;
  language: string | null;
  /** Ways of the page the card brings along. */
  page: PageSetting[];
}
export const readMember = reader<Member>(me);
export const readOwnLog = reader<OwnLog>(ownLog);
export const readSent = reader<SentEntries>(v.looseObject({ refused: v.array(refused) }));
export const readFollowCode = reader<{ code: string }>(v.looseObject({ code: v.string() }));
export const readScreen = reader<{ screen: string }>(v.looseObject({ screen: v.string() }));
export const readTelevision = reader<TelevisionMessage>(message);
