import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { MenuButton } from '../ui/MenuButton.tsx';
import { HistoryDialog } from './HistoryDialog.tsx';
import { KeysDialog } from './KeysDialog.tsx';

/** What is seldom wanted. */
export function MoreMenu() {
  const [isHistory, setHistory] = useState(false);
  const [isKeys, setKeys] = useState(false);
  return (
    <>
      <MenuButton
        size="small"
        label={teacherText('frame.more')}
        entries={[
          { name: teacherText('frame.history'), run: () => setHistory(true) },
          { name: teacherText('frame.keys'), run: () => setKeys(true) },
        ]}
      />
      <HistoryDialog isOpen={isHistory} onClose={() => setHistory(false)} />
      <KeysDialog isOpen={isKeys} onToggle={setKeys} />
    </>
  );
}
