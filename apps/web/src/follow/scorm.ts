import {
  FINISHED,
  joinSeen,
  seenMs,
  seenPart,
  type EntryBody,
  type SeenStretch,
} from '@zest/core/results';
import type { KeepsPlace, Place } from './place.ts';

/**
 * The run-time a learning platform offers a SCORM 1.2 page (Run-Time Environment, section 3.3).
 * Every call answers with text.
 */
export interface ScormApi {
  LMSInitialize(empty: ''): string;
  LMSGetValue(name: string): string;
  LMSSetValue(name: string, value: string): string;
  LMSCommit(empty: ''): string;
  LMSFinish(empty: ''): string;
}

interface Framed {
  API?: ScormApi;
  parent?: unknown;
  opener?: unknown;
}

/** How many frames up it is looked for. */
const MOST_UP = 10;

/**
 * Looks for the run-time in this window, those around it, and the one that opened it; null where
 * there is none.
 */
export function findApi(from: unknown): ScormApi | null {
  const search = (start: unknown): ScormApi | null => {
    let at = start as Framed | null | undefined;
    for (let i = 0; at && i < MOST_UP; i += 1) {
      try {
        if (at.API) return at.API;
        if (at.parent === at) return null;
        at = at.parent as Framed;
      } catch {
        // Another site's frame says nothing.
        return null;
      }
    }
    return null;
  };
  return search(from) ?? search((from as Framed).opener);
}

/** `HHHH:MM:SS.SS`, as SCORM 1.2 writes a length of time. */
export function scormTime(ms: number): string {
  const hundredths = Math.round(ms / 10);
  const two = (value: number) => String(value).padStart(2, '0');
  const seconds = Math.floor(hundredths / 100);
  return (
    `${String(Math.floor(seconds / 3600)).padStart(4, '0')}:` +
    `${two(Math.floor(seconds / 60) % 60)}:${two(seconds % 60)}.` +
    `${two(hundredths % 100)}`
  );
}

/** What a platform keeps of earlier visits. */
interface Kept {
  place: Place | null;
  totalMs: number;
  seen: SeenStretch[];
}
type Reached = Extract<EntryBody, { kind: 'reached' }>;

/**
 * Milliseconds of the whole, then what was seen: `600000 0-4000 9000-12000`, far below the 4,096
 * letters that SCORM 1.2 keeps.
 */
const writeKept = ({ totalMs, seen }: Kept): string =>
  [String(totalMs), ...seen.map((stretch) => stretch.join('-'))].join(' ');

function readKept(location: string, suspended: string): Kept {
  const [whole = '', ...stretches] = suspended.split(' ');
  const totalMs = /^\d+$/.test(whole) ? Number(whole) : 0;
  const seen = stretches.flatMap((text): SeenStretch[] => {
    const [, from, to] = /^(\d+)-(\d+)$/.exec(text) ?? [];
    return from !== undefined && to !== undefined ? [[Number(from), Number(to)]] : [];
  });
  return {
    place: totalMs > 0 && /^\d+$/.test(location) ? { atMs: Number(location), totalMs } : null,
    totalMs,
    seen,
  };
}

/** The longest answer an interaction holds (CMIString255). */
const MOST_LETTERS = 255;

/**
 * Tells a learning platform how a student gets on: complete once nearly all was seen, the score is
 * the part seen in percent, numbers and answers are interactions. Nothing is judged right or wrong.
 * The place and what was seen before come back at the next visit (`lesson_location`,
 * `suspend_data`).
 */
export class ScormReport {
  #interactions: number;
  #percent: number;
  #kept: Kept;
  readonly #began = performance.now();
  #isOpen: boolean;

  constructor(private readonly api: ScormApi) {
    this.#isOpen = api.LMSInitialize('') === 'true';
    this.#interactions = Number(this.api.LMSGetValue('cmi.interactions._count')) || 0;
    this.#percent = Number(this.api.LMSGetValue('cmi.core.score.raw')) || 0;
    this.#kept = readKept(
      this.api.LMSGetValue('cmi.core.lesson_location'),
      this.api.LMSGetValue('cmi.suspend_data'),
    );
    const status = this.api.LMSGetValue('cmi.core.lesson_status');
    if (status !== 'completed' && status !== 'passed')
      this.#set('cmi.core.lesson_status', 'incomplete');
    // Said at once: a page that is closed hard would have no time to.
    this.#set('cmi.core.exit', 'suspend');
    this.#set('cmi.core.score.min', '0');
    this.#set('cmi.core.score.max', '100');
    this.#commit();
  }

  note(body: EntryBody): void {
    switch (body.kind) {
      case 'reached':
        this.#reached(body);
        break;
      case 'score':
        this.#interaction(
          `${body.title}${body.side ? ` ${body.side}` : ''}`,
          'numeric',
          String(body.value),
        );
        break;
      case 'answer':
        this.#interaction(body.question, 'fill-in', body.text);
        break;
      case 'effort':
        this.#interaction('effort', 'likert', String(body.value));
        break;
      default:
        return;
    }
    this.#commit();
  }

  /** The page is left. */
  finish(): void {
    if (!this.#isOpen) return;
    this.#set('cmi.core.session_time', scormTime(performance.now() - this.#began));
    this.#commit();
    this.api.LMSFinish('');
    this.#isOpen = false;
  }

  readonly place: KeepsPlace = {
    read: () => this.#kept.place,
    keep: (place) => {
      this.#kept.place = place;
      this.#set('cmi.core.lesson_location', place ? String(place.atMs) : '');
      // What a platform would forget with the visit is needed until all was seen.
      this.#set('cmi.core.exit', place || this.#percent < FINISHED * 100 ? 'suspend' : '');
      this.#commit();
    },
  };

  #reached(body: Reached): void {
    const { totalMs } = body;
    // Of another version of the lesson nothing is known.
    const before = this.#kept.totalMs === totalMs ? this.#kept.seen : [];
    const seen = body.seen && joinSeen([...before, ...body.seen]);
    this.#keepSeen(totalMs, seen ?? before);
    const part = seenPart({ ...body, seen });
    const percent = Math.min(100, Math.round(part * 100));
    // Seeing it a second time takes nothing away.
    if (percent <= this.#percent) return;
    this.#percent = percent;
    this.#set('cmi.core.score.raw', String(percent));
    if (part >= FINISHED) this.#set('cmi.core.lesson_status', 'completed');
  }

  #keepSeen(totalMs: number, seen: SeenStretch[]): void {
    if (
      this.#kept.totalMs === totalMs &&
      seen.length === this.#kept.seen.length &&
      seenMs(seen) === seenMs(this.#kept.seen)
    )
      return;
    this.#kept = { ...this.#kept, totalMs, seen };
    this.#set('cmi.suspend_data', writeKept(this.#kept));
  }

  #interaction(id: string, type: 'numeric' | 'fill-in' | 'likert', response: string): void {
    const at = `cmi.interactions.${this.#interactions}`;
    this.#interactions += 1;
    // CMIIdentifier: letters, digits and _ of the basic alphabet.
    this.#set(`${at}.id`, id.replace(/[^A-Za-z0-9]+/g, '_').slice(0, MOST_LETTERS) || 'number');
    this.#set(`${at}.type`, type);
    this.#set(`${at}.student_response`, response.slice(0, MOST_LETTERS));
    this.#set(`${at}.result`, 'neutral');
  }

  #set(name: string, value: string): void {
    if (this.#isOpen) this.api.LMSSetValue(name, value);
  }

  #commit(): void {
    if (this.#isOpen) this.api.LMSCommit('');
  }
}
