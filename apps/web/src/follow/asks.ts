import { STUDENT_HEADER } from '@zest/contract/student-header';
import type {
  FollowChoice,
  FollowLesson,
  FollowRendition,
  FollowTake,
  OwnLog,
  Problem,
  SentEntries,
} from '@zest/contract';
import {
  readFollowCode,
  readFollowLesson,
  readMember,
  readOwnLog,
  readScreen,
  readSent,
  type Reader,
} from '@zest/contract/guest-answers';
import { guestRoutes, urlOf } from '@zest/contract/guest-routes';
import type { Me } from './device.ts';
import { say, sayOr, spokenLanguage } from './words/index.ts';

/** What came of asking the server: the answer, or why not in words. */
export type Answer<T> =
  { kind: 'ready'; value: T } | { kind: 'fault'; message: string; status: number };

const localTime = (at: string) =>
  new Date(at).toLocaleString(spokenLanguage(), {
    weekday: 'long',
    day: 'numeric',
    month: 'long',
    hour: '2-digit',
    minute: '2-digit',
  });

/**
 * Why the server refused, in the page's language, or in its own words where the page has none; when
 * a link opens is said by this device's clock.
 */
function inWords({ code, message, at }: Partial<Problem>): string {
  return sayOr(`fault.${code}`, message ?? say('fault.no-connection'), {
    at: at === undefined ? '' : localTime(at),
  });
}

async function ask<T>(read: Reader<T>, url: string, init: RequestInit = {}): Promise<Answer<T>> {
  try {
    const answer = await fetch(url, init);
    const body: unknown = answer.status === 204 ? undefined : await answer.json();
    if (!answer.ok)
      return {
        kind: 'fault',
        message: inWords((body ?? {}) as Partial<Problem>),
        status: answer.status,
      };
    const value = read(body);
    return value === null
      ? { kind: 'fault', message: say('fault.not-read'), status: 500 }
      : { kind: 'ready', value };
  } catch {
    return { kind: 'fault', message: say('fault.no-connection'), status: 0 };
  }
}

/** Nothing is answered, or what is not looked at. */
const readNothing: Reader<true> = () => true;

const post = (body: unknown, headers: Record<string, string> = {}): RequestInit => ({
  method: 'POST',
  headers: { 'content-type': 'application/json', ...headers },
  body: JSON.stringify(body),
});
/** Where the lesson of a link is asked for. */
export const lessonPath = (code: string): string => urlOf(guestRoutes.follow, { code });

export function loadLesson(
  code: string,
  { hand, language, seed }: FollowChoice,
): Promise<Answer<FollowLesson>> {
  const choice = {
    hand: hand === 'other hand' ? 'other' : undefined,
    language: language === 'second' ? language : undefined,
    seed: seed ?? undefined,
  };
  return ask(readFollowLesson, urlOf(guestRoutes.follow, { code }, choice));
}

export const join = (code: string, cardCode: string): Promise<Answer<Me>> =>
  ask(readMember, urlOf(guestRoutes.joinClass, { code }), post({ code: cardCode }));
export const loadMine = (code: string, token: string): Promise<Answer<OwnLog>> =>
  ask(readOwnLog, urlOf(guestRoutes.mine, { code }), { headers: { [STUDENT_HEADER]: token } });
export const go = (classCode: string, lessonCode: string): Promise<Answer<{ code: string }>> =>
  ask(readFollowCode, urlOf(guestRoutes.go, {}), post({ classCode, lessonCode }));

/** Without an answer all of them were taken. */
const readTaken: Reader<SentEntries> = (body) =>
  body === undefined ? { refused: [] } : readSent(body);

/** Sends entries; `keepalive` lets the request outlive the page. */
export const sendEntries = (
  code: string,
  token: string,
  entries: readonly { id: string; at: number; body: unknown }[],
  keepalive: boolean,
): Promise<Answer<SentEntries>> =>
  ask(readTaken, urlOf(guestRoutes.sendEntries, { code }), {
    ...post({ sentAt: Date.now(), entries }, { [STUDENT_HEADER]: token }),
    keepalive,
  });

export const televisionPath = (
  code: string,
  screen: string,
  end: 'television' | 'remote',
): string => urlOf(guestRoutes.televisionNews, { code, screen, end });
export const openTelevision = (code: string): Promise<Answer<{ screen: string }>> =>
  ask(readScreen, urlOf(guestRoutes.openTelevision, { code }), post({}));
export const tellTelevision = (
  code: string,
  screen: string,
  end: 'television' | 'remote',
  message: unknown,
): Promise<Answer<true>> => ask(readNothing, televisionPath(code, screen, end), post(message));

/** The version in it names the content, so that what is kept under an address never changes. */
export const takeUrl = (
  code: string,
  { id, version }: FollowTake,
  smaller: FollowRendition | null,
): string =>
  urlOf(
    guestRoutes.followTake,
    { code, takeId: id },
    { lines: smaller?.lines, v: smaller?.version ?? version },
  );
