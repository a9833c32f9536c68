export * from './entry.ts';
export * from './prompts.ts';
export * from './figures.ts';
export * from './class-view.ts';
export * from './codes.ts';
export * from './words.ts';
export * from './sheet.ts';
export * from './next-lesson.ts';
