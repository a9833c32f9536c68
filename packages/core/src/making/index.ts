export { benches, benchStages, benchStates } from './bench-states.ts';
export type { Bench, BenchState } from './bench-states.ts';
export { portraitOf } from './portrait.ts';
