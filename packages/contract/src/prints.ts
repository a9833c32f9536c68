/** What can be printed of a lesson, as PDF. */
export const prints = ['plan', 'kit', 'run-sheet', 'call-sheet', 'check'] as const;
export type Print = (typeof prints)[number];
