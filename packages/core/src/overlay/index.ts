export * from './scene.ts';
export { indexAt } from './find.ts';
export * from './layout.ts';
export { placesOf, type Places } from './placement.ts';
export * from './painter.ts';
export { COLOURS, FONT_FAMILIES, type PaintContext } from './pen.ts';
export { momentWords, phaseWords } from './words.ts';
