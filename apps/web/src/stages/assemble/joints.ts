import { pointJoints, type EditOf } from '@zest/core/lesson';

/** Joints a teacher points at. */
export type EditJoint = EditOf<'point'>['joint'];

/** Choices of a list, none chosen first. */
export const EDIT_JOINTS: readonly (readonly [EditJoint | '', string])[] = [
  ['', 'choose'],
  ...pointJoints.map((joint) => [joint, joint] as const),
];
