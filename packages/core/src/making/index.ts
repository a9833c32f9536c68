export { benches, benchStages, benchStates } from './bench-states.ts';
export type { Around, Bench, BenchState } from './bench-states.ts';
export { portraitOf } from './portrait.ts';
export type { Portrait } from './portrait.ts';
