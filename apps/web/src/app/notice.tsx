import { Snackbar } from '@mui/material';
import { createContext, useContext, useMemo, useState, type ReactNode } from 'react';

const Notices = createContext<(words: string) => void>(() => undefined);

/** Says one thing at the foot of the window for a while: what was done, or why it was not. */
export function useNotice(): (words: string) => void {
  return useContext(Notices);
}

export function NoticeProvider({ children }: { children: ReactNode }) {
  const [words, setWords] = useState<string | null>(null);
  const say = useMemo(() => (text: string) => setWords(text), []);
  return (
    <Notices.Provider value={say}>
      {children}
      <Snackbar open={words !== null} message={words} autoHideDuration={8_000} onClose={(_event, reason) => reason !== 'clickaway' && setWords(null)} />
    </Notices.Provider>
  );
}
