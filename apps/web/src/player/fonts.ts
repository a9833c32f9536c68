import { FONT_FAMILIES } from '@zest/core/overlay';

/** Loads the painter's fonts, so that the first painted scene has them. */
export async function loadPaintFonts(): Promise<void> {
  // Further letters load when a text first needs them.
  const families = Object.values(FONT_FAMILIES).flatMap((family) => [family, `${family}Ext`]);
  await Promise.all(families.map((family) => document.fonts.load(`36px ${family}`, 'Aā0')));
}
