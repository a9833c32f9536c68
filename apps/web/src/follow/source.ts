import type { FollowChoice, FollowLesson, FollowRendition, FollowTake } from '@zest/contract';
import type { EntryBody } from '@zest/core/results';
import { loadLesson, takeUrl, type Answer } from './asks.ts';
import { placeOnDevice } from './device.ts';
import type { KeepsPlace } from './place.ts';

/** Where the page has its lesson from: the teacher's server, or a package it came in. */
export interface LessonSource {
  /** Names the lesson on this device. */
  key: string;
  load: (choice: FollowChoice) => Promise<Answer<FollowLesson>>;
  /** Where footage is played from, in a smaller version or as filmed. */
  takeUrl: (take: FollowTake, version: FollowRendition | null) => string;
  /** The share's code on the server; null in a package, which knows no students. */
  code: string | null;
  /** Where the student was, so that they go on there. */
  place: KeepsPlace;
  /** Told of everything that happens, by whoever runs a package; left out where nobody does. */
  report?: (body: EntryBody) => void;
}

/** The lesson behind a link. */
export function linkSource(code: string): LessonSource {
  return {
    key: code,
    code,
    place: placeOnDevice(code),
    load: (choice) => loadLesson(code, choice),
    takeUrl: (take, version) => takeUrl(code, take, version),
  };
}
