export * from './effort.ts';
export * from './advice.ts';
export * from './sides.ts';
export * from './kit.ts';
export * from './floor.ts';
export * from './space.ts';
export * from './completeness.ts';
export * from './weight.ts';
