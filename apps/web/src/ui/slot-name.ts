import type { overlaySlots } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';

export type OverlaySlot = (typeof overlaySlots)[number];

/** What an overlay is called within a sentence. */
export const slotName = (slot: OverlaySlot): string => teacherText(`slot.${slot}`);
