import { Button, Dialog, DialogActions, DialogContent, DialogTitle, Table, TableBody, TableCell, TableRow } from '@mui/material';
import { useEffect, useState } from 'react';

const keys = [
  ['Ctrl Z, Ctrl Shift Z', 'Undo, redo (outside a text field)'],
  ['Enter', 'Open a block; take over a figure'],
  ['Space', 'Assemble and Film: start or stop the video'],
  ['[ and ]', 'Assemble and Film: one frame back or on'],
  ['{ and }', 'Assemble and Film: one second back or on'],
  ['M', 'Film: the block starts at the frame shown'],
  ['?', 'This list'],
] as const;

/** The keyboard map, opened by `?`. */
export function KeysDialog() {
  const [isOpen, setOpen] = useState(false);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLElement && /^(INPUT|TEXTAREA)$/.test(event.target.tagName);
      if (!typing && event.key === '?') setOpen(true);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  return (
    <>
      <Button onClick={() => setOpen(true)}>Keys</Button>
      <Dialog open={isOpen} onClose={() => setOpen(false)} aria-labelledby="keys-title">
        <DialogTitle id="keys-title">Keys</DialogTitle>
        <DialogContent>
          <Table size="small">
            <TableBody>
              {keys.map(([key, what]) => (
                <TableRow key={key}>
                  <TableCell component="th" scope="row" sx={{ fontWeight: 700, whiteSpace: 'nowrap' }}>
                    {key}
                  </TableCell>
                  <TableCell>{what}</TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
        </DialogContent>
        <DialogActions>
          <Button onClick={() => setOpen(false)}>Close</Button>
        </DialogActions>
      </Dialog>
    </>
  );
}
