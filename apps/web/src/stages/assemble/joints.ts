import { joints, type Joint } from '@zest/core/signal';

/** Joints a teacher points at; eyes and ears are found, but seldom meant. */
export type EditJoint = Exclude<Joint, 'left eye' | 'right eye' | 'left ear' | 'right ear'>;
const isPointedAt = (joint: Joint): joint is EditJoint => !/eye|ear$/.test(joint);

/** Choices of a list, none chosen first. */
export const EDIT_JOINTS: readonly (readonly [EditJoint | '', string])[] = [['', 'choose'], ...joints.filter(isPointedAt).map((joint) => [joint, joint] as const)];
