export * from './sentences.ts';
export * from './anchors.ts';
export * from './pace.ts';
export * from './hands.ts';
export * from './readability.ts';
export * from './prompter.ts';
export * from './counts.ts';
export * from './glossary.ts';
