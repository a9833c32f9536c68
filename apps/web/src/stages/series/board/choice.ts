import { createContext, useContext } from 'react';

/** What of the series is open at its side. */
export type Chosen =
  | { what: 'rule'; id: string }
  | { what: 'skill'; id: string }
  | { what: 'week'; week: number }
  | null;

export const ChosenContext = createContext<{ chosen: Chosen; choose: (chosen: Chosen) => void }>({
  chosen: null,
  choose: () => undefined,
});
export const useChosen = () => useContext(ChosenContext);
