import {
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  Table,
  TableBody,
  TableCell,
  TableRow,
} from '@mui/material';
import { Fragment, useEffect } from 'react';
import { isTyping } from '../ui/typing.ts';
import { FIND_KEY } from './FindAction.tsx';

const keys = [
  [
    'Everywhere',
    [
      [`${FIND_KEY}, or Ctrl ${FIND_KEY} while typing`, 'Find an action by name'],
      ['Ctrl Z, Ctrl Shift Z', 'Undo, redo (outside a text field)'],
      ['?', 'This list'],
    ],
  ],
  [
    'Plan, with a block in focus',
    [
      ['Enter', 'Open the block; take over a figure'],
      ['↑ and ↓', 'The block before or after'],
      ['S', 'Choose the block, or leave it out again'],
      ['Shift ↑ and Shift ↓', 'Choose the next one as well'],
      ['Alt ↑ and Alt ↓', 'Move the chosen blocks'],
      ['Ctrl C, Ctrl X, Ctrl V', 'Copy, cut, put in here; from lesson to lesson too'],
      ['Delete', 'Remove the chosen blocks'],
      ['R', 'Rehearse the block, or stop'],
      ['Space on the grip', 'Lift the block; arrows move it, Space puts it down'],
    ],
  ],
  [
    'Plan, in a figure',
    [
      ['↑ and ↓', 'A step more or less'],
      ['Alt L', 'Keep it when the lesson is fitted, or no longer'],
      ['Escape', 'Take back what was typed; leave the figure'],
      ['← and → on a border', 'Make that part of the block longer or shorter'],
    ],
  ],
  [
    'Film and Assemble',
    [
      ['Space', 'Start or stop the video'],
      ['[ and ]', 'One frame back or on'],
      ['{ and }', 'One second back or on'],
      ['M', 'Film: the block starts at the frame shown'],
    ],
  ],
  [
    'Assemble',
    [
      ['F and T', 'The stretch goes from, or to, the frame shown'],
      ['Page Up and Page Down', 'To where something begins or ends'],
      ['Delete', 'Leave the stretch out'],
      ['Escape', 'No stretch'],
      ['V', 'Hear the sound as recorded, or as finished'],
      ['↓, ← and →', 'While counting by taps: a repetition, on the left, on the right'],
      ['↑', 'While counting by taps: one that does not count'],
    ],
  ],
] as const;

/** The keyboard map, opened by `?`. */
export function KeysDialog({
  isOpen,
  onToggle,
}: {
  isOpen: boolean;
  onToggle: (isOpen: boolean) => void;
}) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!isTyping(event.target) && event.key === '?') onToggle(true);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [onToggle]);
  const close = () => onToggle(false);
  return (
    <Dialog open={isOpen} onClose={close} aria-labelledby="keys-title">
      <DialogTitle id="keys-title">Keys</DialogTitle>
      <DialogContent>
        <Table size="small">
          <TableBody>
            {keys.map(([place, rows]) => (
              <Fragment key={place}>
                <TableRow>
                  <TableCell
                    component="th"
                    scope="rowgroup"
                    colSpan={2}
                    sx={{ color: 'text.secondary', pt: 2 }}
                  >
                    {place}
                  </TableCell>
                </TableRow>
                {rows.map(([key, what]) => (
                  <TableRow key={key}>
                    <TableCell
                      component="th"
                      scope="row"
                      sx={{ fontWeight: 700, whiteSpace: 'nowrap' }}
                    >
                      {key}
                    </TableCell>
                    <TableCell>{what}</TableCell>
                  </TableRow>
                ))}
              </Fragment>
            ))}
          </TableBody>
        </Table>
      </DialogContent>
      <DialogActions>
        <Button onClick={close}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}
