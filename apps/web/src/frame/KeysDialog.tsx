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
import { teacherText, type TeacherWord } from '@zest/core/words';
import { Fragment, useEffect } from 'react';
import { isTyping } from '../ui/typing.ts';
import { FIND_KEY } from './FindAction.tsx';

/** Keys by where they work; what is printed on a key stands as it is. */
const keys: readonly (readonly [TeacherWord, readonly (readonly [string, TeacherWord])[]])[] = [
  [
    'keys.everywhere',
    [
      [`${FIND_KEY}   Ctrl ${FIND_KEY}`, 'keys.find'],
      ['Ctrl Z   Ctrl Shift Z', 'keys.undo'],
      ['?', 'keys.list'],
    ],
  ],
  [
    'keys.plan-block',
    [
      ['Enter', 'keys.open'],
      ['↑ ↓', 'keys.neighbour'],
      ['S', 'keys.choose'],
      ['Shift ↑ ↓', 'keys.choose-more'],
      ['Alt ↑ ↓', 'keys.move'],
      ['Ctrl C   X   V', 'keys.copy'],
      ['Delete', 'keys.remove'],
      ['R', 'keys.rehearse'],
      ['Space', 'keys.lift'],
    ],
  ],
  [
    'keys.plan-figure',
    [
      ['↑ ↓', 'keys.step'],
      ['Alt L', 'keys.lock'],
      ['Escape', 'keys.take-back'],
      ['← →', 'keys.border'],
    ],
  ],
  [
    'keys.picture',
    [
      ['Space', 'keys.play'],
      ['[   ]', 'keys.frame'],
      ['{   }', 'keys.second'],
      ['M', 'keys.mark'],
    ],
  ],
  [
    'keys.assemble',
    [
      ['F   T', 'keys.stretch'],
      ['↑ ↓ ← →', 'keys.lanes'],
      ['Page Up   Page Down', 'keys.moment'],
      ['+   −   0', 'keys.zoom'],
      ['Enter', 'keys.do'],
      ['Escape', 'keys.leave'],
      ['V', 'keys.finished'],
      ['↓ ← →', 'keys.tap'],
      ['↑', 'keys.tap-missed'],
    ],
  ],
  [
    'keys.check',
    [
      ['Page Up   Page Down', 'keys.finding'],
      ['P', 'keys.put-right'],
      ['G', 'keys.go'],
      ['I', 'keys.ignore'],
    ],
  ],
];

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
      <DialogTitle id="keys-title">{teacherText('keys.title')}</DialogTitle>
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
                    {teacherText(place)}
                  </TableCell>
                </TableRow>
                {rows.map(([key, what]) => (
                  <TableRow key={what}>
                    <TableCell
                      component="th"
                      scope="row"
                      sx={{ fontWeight: 700, whiteSpace: 'pre' }}
                    >
                      {key}
                    </TableCell>
                    <TableCell>{teacherText(what)}</TableCell>
                  </TableRow>
                ))}
              </Fragment>
            ))}
          </TableBody>
        </Table>
      </DialogContent>
      <DialogActions>
        <Button onClick={close}>{teacherText('common.close')}</Button>
      </DialogActions>
    </Dialog>
  );
}
