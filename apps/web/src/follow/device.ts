import type { Member } from '@zest/contract/guest-answers';
import type { KeepsPlace, Place } from './place.ts';

/** What this device keeps under a name; nothing when it keeps nothing, or keeps something else. */
function read<T extends object>(name: string): Partial<T> | null {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(name) ?? 'null');
    return typeof kept === 'object' && kept !== null ? (kept as Partial<T>) : null;
  } catch {
    return null;
  }
}

/** Keeps something; a full or locked store loses a comfort, not a lesson. */
function keep(name: string, value: object | null): void {
  try {
    if (value === null) localStorage.removeItem(name);
    else localStorage.setItem(name, JSON.stringify(value));
  } catch {
    // Private windows may keep nothing.
  }
}

/** Whose device it is, in one class. */
export type Me = Member;

const nameOfMe = (classId: string) => `zest-me-${classId}`;

export function readMe(classId: string): Me | null {
  const kept = read<Me>(nameOfMe(classId));
  return kept?.token && kept.nickname
    ? {
        token: kept.token,
        nickname: kept.nickname,
        hand: kept.hand ?? null,
        language: kept.language ?? null,
        page: kept.page ?? [],
      }
    : null;
}
export const keepMe = (classId: string, me: Me | null): void => keep(nameOfMe(classId), me);

/** The code of a card whose owner has not opened a lesson of the class yet. */
export const keepCard = (code: string | null): void =>
  keep('zest-card', code === null ? null : { code });
export const readCard = (): string => read<{ code: string }>('zest-card')?.code ?? '';

/** How this student wants lessons, on this device. */
export interface Choices {
  larger: boolean;
  contrast: boolean;
  calm: boolean;
  captions: boolean;
  /** The video itself can be heard. */
  sound: boolean;
  /** Tones of clock and count, and commands spoken by the page. */
  signals: boolean;
  hand: 'as filmed' | 'other hand';
  language: 'first' | 'second';
  level: 'easier' | 'standard' | 'harder';
  /** Stops after each part, and says which comes next. */
  partByPart: boolean;
  /** What is on and what comes next stands beside the picture all the time. */
  strip: boolean;
  /** Called-out games in another order each time. */
  newOrder: boolean;
  /** Size of the picture, in lines: as the line allows, as filmed, or always that. */
  picture: 'auto' | 'filmed' | number;
}

const usual: Choices = {
  larger: false,
  contrast: false,
  calm: typeof matchMedia === 'function' && matchMedia('(prefers-reduced-motion: reduce)').matches,
  captions: true,
  sound: true,
  signals: true,
  hand: 'as filmed',
  language: 'first',
  level: 'standard',
  partByPart: false,
  strip: false,
  newOrder: false,
  picture: 'auto',
};

/** What was chosen on this device; all else is as usual, or as the card says. */
export const readChosen = (): Partial<Choices> => read<Choices>('zest-choices') ?? {};
export const keepChosen = (chosen: Partial<Choices>): void => keep('zest-choices', chosen);

const spoken = (tag: string | null) => tag?.split('-')[0]?.toLowerCase();

/**
 * How the lesson is shown: as usual, but for what the card says of hand, language and page, but for
 * what was chosen.
 * @param second the lesson's second language
 */
export function choicesOf(
  chosen: Partial<Choices>,
  me: Pick<Me, 'hand' | 'language' | 'page'> | null,
  second: string | null,
): Choices {
  return {
    ...usual,
    ...Object.fromEntries((me?.page ?? []).map((setting) => [setting, true])),
    ...(me?.hand === 'left' && { hand: 'other hand' as const }),
    ...(me?.language &&
      second !== null &&
      spoken(me.language) === spoken(second) && { language: 'second' as const }),
    ...chosen,
  };
}

/**
 * What this device's line was last measured to carry, in kilobits a second; null when it never was.
 */
export const readLine = (): number | null => read<{ kbit: number }>('zest-line')?.kbit ?? null;
export const keepLine = (kbit: number): void => keep('zest-line', { kbit });

/** Things ticked off as fetched, for one link. */
export const readTicks = (code: string): string[] =>
  read<{ ticks: string[] }>(`zest-ticks-${code}`)?.ticks ?? [];
export const keepTicks = (code: string, ticks: readonly string[]): void =>
  keep(`zest-ticks-${code}`, { ticks });

/** Where the video of a lesson was left. @param key names the lesson on this device */
export function placeOnDevice(key: string): KeepsPlace {
  const name = `zest-place-${key}`;
  return {
    read: () => {
      const { atMs, totalMs } = read<Place>(name) ?? {};
      return typeof atMs === 'number' && typeof totalMs === 'number' ? { atMs, totalMs } : null;
    },
    keep: (place) => keep(name, place),
  };
}

/** Entries that have not arrived yet. */
export interface Waiting {
  code: string;
  token: string;
  id: string;
  at: number;
  body: unknown;
  /** The lesson they are of; pages of before did not say. */
  title?: string;
  /** Why the server will never take it, in its words. */
  refused?: string;
}
const MOST_WAITING = 1_000;
export const readWaiting = (): Waiting[] => read<{ list: Waiting[] }>('zest-outbox')?.list ?? [];
export const keepWaiting = (list: readonly Waiting[]): void =>
  keep('zest-outbox', list.length === 0 ? null : { list: list.slice(-MOST_WAITING) });
