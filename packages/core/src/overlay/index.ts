export * from './scene.ts';
export { indexAt } from './find.ts';
export * from './layout.ts';
export { commonArea, inUnits, placesOf, type Places } from './placement.ts';
export * from './painter.ts';
export { arcMinutes, LEAST_ARCMIN } from './legible.ts';
export { contrastOf, inkOf, LEAST_CONTRAST, readable, type Ink } from './ink.ts';
export {
  FONT_FAMILIES,
  FONT_PARTS,
  forgetFitted,
  isRightToLeft,
  measurer,
  type PaintContext,
} from './pen.ts';
export { fitCaution, fitCue } from './paint-words.ts';
export { momentWords, phaseWords } from './words.ts';
