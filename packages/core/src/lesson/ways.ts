import type { Block } from './blocks.ts';
import { LIMITS } from './limits.ts';
import type { FloorMark, Way } from './parts.ts';
import { lengthText } from '../time/index.ts';
import { speaking } from '../words/index.ts';
import type { Lesson } from './schema.ts';
import { spaceText } from './units.ts';

/** What of a lesson decides how its blocks are played. */
export type Players = Pick<Lesson, 'audience'>;

/** Whether a way is for a class of these ages. */
const isForAges = ({ ages }: Way, { ageFrom, ageTo }: Lesson['audience']): boolean =>
  !ages || (ages.from <= ageTo && ages.to >= ageFrom);

/** The ways of a block for a class, by the number of players; of one number, the first that fits. */
export function waysOf({ ways }: Pick<Block, 'ways'>, { audience }: Players): Way[] {
  const byPlayers = new Map<number, Way>();
  for (const way of ways ?? [])
    if (isForAges(way, audience) && !byPlayers.has(way.players)) byPlayers.set(way.players, way);
  return [...byPlayers.values()].sort((a, b) => a.players - b.players);
}

/** The way a block is played by so many; undefined where none is said. */
export const wayFor = (
  block: Pick<Block, 'ways'>,
  lesson: Players,
  players: number,
): Way | undefined =>
  waysOf(block, lesson).find((way) => way.players === Math.min(players, LIMITS.wayPlayers.max));

/** How many play a block as it is filmed: with a partner two at least. */
const playersOf = ({ company }: Pick<Block, 'company'>): number =>
  company.kind === 'partner' ? Math.max(2, company.players) : company.players;

/** The way a block is played as it is filmed. */
export const filmedWay = (
  block: Pick<Block, 'ways' | 'company'>,
  lesson: Players,
): Way | undefined => block.ways && wayFor(block, lesson, playersOf(block));

/**
 * Where players stand, in centimetres to the right of the first and ahead: two face each other, three
 * and four stand at the corners of a triangle and a square, each as far from the next.
 */
function places(players: number, distanceCm: number): { rightCm: number; forwardCm: number }[] {
  const first = { rightCm: 0, forwardCm: 0 };
  switch (players) {
    case 1:
      return [first];
    case 2:
      return [first, { rightCm: 0, forwardCm: distanceCm }];
    case 3: {
      const forwardCm = Math.round((distanceCm * Math.sqrt(3)) / 2);
      const aside = Math.round(distanceCm / 2);
      return [first, { rightCm: -aside, forwardCm }, { rightCm: aside, forwardCm }];
    }
    default:
      return [
        first,
        { rightCm: distanceCm, forwardCm: 0 },
        { rightCm: distanceCm, forwardCm: distanceCm },
        { rightCm: 0, forwardCm: distanceCm },
      ];
  }
}

const POINT_CM = 30;

/** A way as marks on the floor: the field in the middle of the players, and where the others stand. */
export function marksOfWay({ id, players, field, distanceCm }: Way): FloorMark[] {
  const stand = places(players, distanceCm ?? 0);
  const middle = (of: 'rightCm' | 'forwardCm') => {
    const far = players === 1 && of === 'forwardCm' ? (distanceCm ?? 0) : 0;
    const all = [...stand.map((place) => place[of]), far];
    return Math.round((Math.min(...all) + Math.max(...all)) / 2);
  };
  const mark = (n: number, rest: Omit<FloorMark, 'id'>): FloorMark => ({
    id: `${id}-${n}`,
    ...rest,
  });
  const others =
    distanceCm === undefined
      ? []
      : stand.slice(1).map((place, i) =>
          mark(i + 1, {
            ...{ kind: 'marker', label: String(i + 2), ...place },
            ...{ widthCm: POINT_CM, depthCm: POINT_CM },
          }),
        );
  return field
    ? [
        mark(0, {
          ...{ kind: 'court', label: '', ...field },
          ...{ rightCm: middle('rightCm'), forwardCm: middle('forwardCm') },
        }),
        ...others,
      ]
    : others;
}

/** A block with what its way marks out on the floor, where it says one. */
export function withWay<B extends Pick<Block, 'ways' | 'floor' | 'company'>>(
  block: B,
  lesson: Players,
  way: Way | undefined = filmedWay(block, lesson),
): B {
  return way ? { ...block, floor: [...block.floor, ...marksOfWay(way)] } : block;
}

/** A way in words: who plays so, the rules, and what goes with them. */
export interface WayWords {
  players: string;
  rules: string;
  /** Changing places, field and distances; empty where nothing is said. */
  how: string;
}

export function wayWords(
  { players, rules, rotate, field, distanceCm }: Way,
  { language, units }: Pick<Lesson['settings'], 'language' | 'units'>,
): WayWords {
  const say = speaking(language);
  const far = (cm: number) => spaceText(cm, units);
  const how = [
    rotate?.by === 'event' ? say(`players.after-${rotate.after}`) : '',
    rotate?.by === 'time' ? say('players.every', { length: lengthText(rotate.everyMs) }) : '',
    field ? say('players.field', { width: far(field.widthCm), depth: far(field.depthCm) }) : '',
    distanceCm === undefined
      ? ''
      : say(players === 1 ? 'players.to-target' : 'players.apart', { distance: far(distanceCm) }),
  ];
  return {
    players: say('players.name', { n: String(players) }),
    rules,
    how: how.filter((text) => text !== '').join(', '),
  };
}

/** All ways of a block for its class in words, one line each. */
export const wayTexts = (block: Pick<Block, 'ways'>, lesson: Lesson): string[] =>
  waysOf(block, lesson)
    .map((way) => wayWords(way, lesson.settings))
    .map(({ players, rules, how }) =>
      [`${players}:`, rules, how && `(${how})`].filter((text) => text !== '').join(' '),
    );
