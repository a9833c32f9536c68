import { teacherText } from '@zest/core/words';
import { pointJoints, valueName, type EditOf } from '@zest/core/lesson';
import { named } from '../../ui/fields.tsx';

/** Joints a teacher points at. */
export type EditJoint = EditOf<'point'>['joint'];

/** Choices of a list, none chosen first. */
export const EDIT_JOINTS: readonly (readonly [EditJoint | '', string])[] = [
  ['', teacherText('assemble.choose')],
  ...named(pointJoints, valueName),
];
