export * from './account.ts';
export * from './lessons.ts';
export * from './takes.ts';
export * from './jobs.ts';
export * from './shares.ts';
export * from './problem.ts';
export * from './routes.ts';
