import { greyCells, type Picture } from './picture.ts';
import { CELLS } from './picture-quality.ts';
import { isSomebody, nextCrop, SURE_JOINT, type Crop, type SeenPose } from './pose.ts';

/**
 * Looking at the body is what costs: a picture that is like the last one looked at, or lies between
 * two looks on a smooth way, is not looked at.
 */

/** A cell that differs by more than this, of 255, has changed; fewer changed cells are grain. */
const CELL_CHANGE = 6;
const CHANGED_CELLS = 3;
/** A joint that bends its way by more than this, in heights of the picture, is quick. */
const BENDS = 0.12;
/** The picture between is further from both than they are from each other, by so much. */
const ELSEWHERE = 1.25;

/** How many cells of two pictures differ. @param a grey cells, as many as `b` */
function changedCells(a: Uint8Array, b: Uint8Array): number {
  let changed = 0;
  for (let i = 0; i < a.length; i += 1)
    if (Math.abs((a[i] as number) - (b[i] as number)) > CELL_CHANGE) changed += 1;
  return changed;
}

/** Whether nothing has moved from one picture to the other. */
const isSamePicture = (a: Uint8Array, b: Uint8Array): boolean =>
  changedCells(a, b) <= CHANGED_CELLS;

const isSure = (joint: SeenPose[number] | undefined): joint is SeenPose[number] =>
  joint !== undefined && joint.score >= SURE_JOINT;

/**
 * Whether a joint does not go on as it came, or somebody comes or goes.
 * @param earlier the look before `before`, as long before it as `after` is after it
 * @param aspect width of the picture over its height
 */
function isQuick(
  earlier: SeenPose | null,
  before: SeenPose,
  after: SeenPose,
  aspect: number,
): boolean {
  if (!isSomebody(before) && !isSomebody(after)) return false;
  if (!earlier || !isSomebody(before) || !isSomebody(after)) return true;
  return before.some((joint, j) => {
    const [was, next] = [earlier[j], after[j]];
    return (
      isSure(was) &&
      isSure(joint) &&
      isSure(next) &&
      Math.hypot((was.x - 2 * joint.x + next.x) * aspect, was.y - 2 * joint.y + next.y) > BENDS
    );
  });
}

/** Whether a picture is elsewhere than those before and after it, which are alike: a quick bounce. */
const isElsewhere = (before: Uint8Array, between: Uint8Array, after: Uint8Array): boolean =>
  Math.min(changedCells(before, between), changedCells(between, after)) >
  ELSEWHERE * changedCells(before, after) + CHANGED_CELLS;

/** The pose half-way between two. */
const between = (before: SeenPose, after: SeenPose): SeenPose =>
  before.map((joint, j) => {
    const next = after[j] ?? joint;
    return {
      x: (joint.x + next.x) / 2,
      y: (joint.y + next.y) / 2,
      score: (joint.score + next.score) / 2,
    };
  });

/** So long after a quick movement every picture is looked at. */
const QUICK_PICTURES = 10;
/** The longest a picture is taken for the same, in pictures. */
const MOST_SAME = 10;

interface Held {
  picture: Picture;
  cells: Uint8Array;
}
/** A picture with what was seen in it. */
export interface LookedAt extends Held {
  pose: SeenPose;
}

/**
 * Looks at the body in pictures that come one after the other, at every other one where that tells as
 * much. Pictures come back in their order, one late at most.
 */
export class PoseWatch {
  readonly #look: (picture: Picture, crop: Crop) => Promise<SeenPose>;
  #held: Held | null = null;
  #last: { cells: Uint8Array; pose: SeenPose; index: number } | null = null;
  #earlier: SeenPose | null = null;
  #index = -1;
  #quickAt = -Infinity;

  /** @param look what is seen in a square of a picture */
  constructor(look: (picture: Picture, crop: Crop) => Promise<SeenPose>) {
    this.#look = look;
  }

  /** @param picture its pixels may be written over afterwards */
  async add(picture: Picture): Promise<LookedAt[]> {
    this.#index += 1;
    const cells = greyCells(picture, CELLS.columns, CELLS.rows);
    const last = this.#last;
    if (!last) return [await this.#see({ picture, cells })];
    const held = this.#held;
    if (!held) {
      if (this.#index - last.index < MOST_SAME && isSamePicture(last.cells, cells))
        return [{ picture, cells, pose: last.pose }];
      this.#held = { picture: { ...picture, rgb: Uint8Array.from(picture.rgb) }, cells };
      return [];
    }
    this.#held = null;
    const aspect = picture.width / picture.height;
    const earlier = this.#earlier;
    const seen = await this.#see({ picture, cells });
    if (isQuick(earlier, last.pose, seen.pose, aspect)) this.#quickAt = this.#index;
    const isToBeSeen =
      this.#index - this.#quickAt <= QUICK_PICTURES ||
      this.#index - last.index > 2 ||
      isElsewhere(last.cells, held.cells, cells);
    const pose = isToBeSeen
      ? await this.#look(held.picture, nextCrop(last.pose, aspect))
      : between(last.pose, seen.pose);
    return [{ ...held, pose }, seen];
  }

  /** What is left when no more pictures come. */
  async end(): Promise<LookedAt[]> {
    const held = this.#held;
    this.#held = null;
    return held ? [await this.#see(held)] : [];
  }

  async #see({ picture, cells }: Held): Promise<LookedAt> {
    const aspect = picture.width / picture.height;
    const pose = await this.#look(picture, nextCrop(this.#last?.pose ?? null, aspect));
    this.#earlier = this.#last?.pose ?? null;
    this.#last = { cells, pose, index: this.#index };
    return { picture, cells, pose };
  }
}
