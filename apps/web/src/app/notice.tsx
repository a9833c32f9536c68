import { Button, Snackbar } from '@mui/material';
import { teacherText } from '@zest/core/words';
import { createContext, useContext, useMemo, useState, type ReactNode } from 'react';

/** Says it, with a way back where there is one. */
type Say = (words: string, undo?: () => void) => void;

const Notices = createContext<Say>(() => undefined);

/** Says one thing at the foot of the window for a while: what was done, or why it was not. */
export function useNotice(): Say {
  return useContext(Notices);
}

export function NoticeProvider({ children }: { children: ReactNode }) {
  const [said, setSaid] = useState<{ words: string; undo: (() => void) | undefined } | null>(null);
  const say = useMemo<Say>(() => (words, undo) => setSaid({ words, undo }), []);
  const takeBack = () => {
    said?.undo?.();
    setSaid(null);
  };
  return (
    <Notices.Provider value={say}>
      {children}
      <Snackbar
        open={said !== null}
        message={said?.words}
        autoHideDuration={8_000}
        onClose={(_event, reason) => reason !== 'clickaway' && setSaid(null)}
        action={
          said?.undo && (
            <Button color="inherit" onClick={takeBack}>
              {teacherText('common.undo')}
            </Button>
          )
        }
      />
    </Notices.Provider>
  );
}
