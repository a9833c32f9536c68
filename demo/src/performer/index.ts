export { PERIOD_S, poseAt } from './pose.ts';
export type { Point, Pose } from './pose.ts';
export { drawPerformer } from './draw.ts';
export type { DrawContext, Room } from './draw.ts';
export { doneReps, performAt, plainHabits } from './performance.ts';
export type { DoneRep, Habits } from './performance.ts';
export { pinholeView, plainView } from './view.ts';
export type { PlacedView } from './view.ts';
export { speechAt, voiceSamples, VOICE_LOOP_S } from './voice.ts';
