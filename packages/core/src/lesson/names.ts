import { teacherText } from '../words/index.ts';
import type { BlockKind, sides } from './blocks.ts';
import type { besideLayouts, EditKind, pointJoints, soundsAgain } from './edits.ts';
import type {
  bodyRegions,
  LessonPart,
  performerFacings,
  shotAngles,
  shotFramings,
  viewerFacings,
} from './parts.ts';
import type { noiseChoices, pacerChoices, themes, viewingProfiles } from './finish.ts';
import type { stageSchools } from './series.ts';

/** What a kind of block is called. */
export const kindName = (kind: BlockKind): string => teacherText(`kind.${kind}`);

/** What a part of a lesson is called. */
export const partName = (part: LessonPart): string => teacherText(`part.${part}`);

/** What a change by hand is called. */
export const editName = (kind: EditKind): string => teacherText(`edit.name-${kind}`);

type Value =
  | Exclude<(typeof bodyRegions)[number], 'back'>
  | (typeof shotAngles)[number]
  | (typeof shotFramings)[number]
  | (typeof performerFacings)[number]
  | (typeof viewerFacings)[number]
  | (typeof themes)[number]
  | (typeof viewingProfiles)[number]
  | (typeof noiseChoices)[number]
  | (typeof pacerChoices)[number]
  | (typeof sides)[number]
  | (typeof soundsAgain)[number]
  | (typeof besideLayouts)[number]
  | (typeof pointJoints)[number]
  | 'earlier'
  | 'later';

/** What a value of a block, of a change by hand or of the finish is called. */
export const valueName = (value: Value): string => teacherText(`value.${value}`);

/** What a region of the body is called. */
export const regionName = (region: (typeof bodyRegions)[number]): string =>
  region === 'back' ? teacherText('value.back-region') : valueName(region);

type Schools = typeof stageSchools;

/** What a stage of learning a skill is called. */
export const stageName = (stage: Schools[keyof Schools][number]): string =>
  teacherText(`stage.${stage}`);
