import { createContext } from 'react';

/**
 * How fields look: in boxes; as a name and a value that stand in running text; or as the value
 * alone, where the text around it says what it is.
 */
export type FieldLook = 'boxed' | 'named' | 'bare';
export const FieldLook = createContext<FieldLook>('boxed');
