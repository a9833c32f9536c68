export * from './schema.ts';
export * from './read.ts';
export * from './make.ts';
export * from './edit.ts';
