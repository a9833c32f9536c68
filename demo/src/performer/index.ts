export { PERIOD_S, poseAt } from './pose.ts';
export type { Point, Pose } from './pose.ts';
export { drawPerformer } from './draw.ts';
export type { DrawContext } from './draw.ts';
export { speechAt, voiceSamples, VOICE_LOOP_S } from './voice.ts';
