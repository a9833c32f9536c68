import { Button, Dialog, DialogActions, DialogContent, DialogContentText, DialogTitle } from '@mui/material';
import { keepMine, takeTheirs } from './autosave.ts';
import { useAppDispatch, useAppSelector } from './store.ts';

/** Asks which version to keep after another window saved first. Either way both stay in the history. */
export function StaleDialog() {
  const save = useAppSelector((state) => state.lesson.open?.save);
  const dispatch = useAppDispatch();
  return (
    <Dialog open={save?.kind === 'stale'} aria-labelledby="stale-title">
      <DialogTitle id="stale-title">This lesson was changed in another window</DialogTitle>
      <DialogContent>
        <DialogContentText>
          Another window or device saved this lesson after you opened it here. Choose the version to go on with. The other one stays in
          the lesson’s history and can be brought back at any time.
        </DialogContentText>
      </DialogContent>
      <DialogActions>
        <Button onClick={() => void dispatch(takeTheirs())}>Use the other version</Button>
        <Button variant="contained" onClick={() => void dispatch(keepMine())} autoFocus>
          Keep this window’s version
        </Button>
      </DialogActions>
    </Dialog>
  );
}
