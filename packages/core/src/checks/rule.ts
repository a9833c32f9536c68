import type { Assembly, TakeFacts } from '../assembly/index.ts';
import type { Lesson, MakeId } from '../lesson/index.ts';
import type { Measure } from '../overlay/index.ts';
import type { Schedule } from '../schedule/index.ts';
import type { BenchName, Harm, Hit } from './finding.ts';
import type { SeenAt } from './seen-at.ts';
import type { WatchedBlock } from './watched-blocks.ts';

/** All a rule may look at. */
export interface ToCheck {
  lesson: Lesson;
  schedule: Schedule;
  /** The cut made of the lesson and its takes. */
  cut: Assembly;
  takes: ReadonlyMap<string, TakeFacts>;
  /** The blocks whose takes were looked at. */
  watched: readonly WatchedBlock[];
  /** Makes ids for what remedies put in. */
  makeId: MakeId;
  /** Measures bold text in the font of the overlays. */
  measure: Measure;
}

/** One rule: what breaking it does to a student, where it is put right, and who says so. */
export interface Rule {
  id: string;
  harm: Harm;
  bench: BenchName;
  source: string | null;
  /** Where on screen it is seen; left out where nothing shows it. */
  seenAt?: readonly SeenAt[];
  /** Matters only once something of the lesson is filmed. */
  onceFilmed?: true;
  run: (all: ToCheck) => Hit[];
}
