import type { Scene } from '@zest/core/overlay';
import { useState, useSyncExternalStore } from 'react';

/**
 * What is on screen now, told only to what shows it: the bench around it is not drawn anew at every
 * frame.
 */
export class PlayClock {
  #scene: Scene | null = null;
  readonly #listeners = new Set<() => void>();

  readonly show = (scene: Scene): void => {
    this.#scene = scene;
    for (const listener of this.#listeners) listener();
  };
  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => void this.#listeners.delete(listener);
  };
  get ms(): number {
    return this.#scene?.atMs ?? 0;
  }
  readonly readMs = (): number => this.ms;
  readonly readCaption = (): string[] | null => this.#scene?.caption ?? null;
}

export function usePlayClock(): PlayClock {
  return useState(() => new PlayClock())[0];
}

export const usePlayMs = (clock: PlayClock): number =>
  useSyncExternalStore(clock.subscribe, clock.readMs);
export const useCaption = (clock: PlayClock): string[] | null =>
  useSyncExternalStore(clock.subscribe, clock.readCaption);
