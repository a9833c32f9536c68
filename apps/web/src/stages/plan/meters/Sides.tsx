import {
  Button,
  Stack,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  Typography,
} from '@mui/material';
import type { SidePair, SidesLedger } from '@zest/core/ledger';
import { lengthText } from '@zest/core/time';
import { useChosenBlock } from '../../../app/use-lesson.ts';

export function sidesHeadline({ left, right, uneven }: SidesLedger): {
  words: string;
  isWell: boolean;
} {
  if (left.ms + right.ms === 0) return { words: 'no one-sided work', isWell: true };
  return uneven.length === 0
    ? { words: 'level', isWell: true }
    : {
        words: `${uneven.length} uneven ${uneven.length === 1 ? 'block' : 'blocks'}`,
        isWell: false,
      };
}

const load = ({ count, ms }: SidePair['left']) =>
  count > 0 ? `${count} · ${lengthText(ms)}` : lengthText(ms);

/** Repetitions and time by side, in all and by body region, and what favours a side. */
export function Sides({ ledger }: { ledger: SidesLedger }) {
  const { choose } = useChosenBlock();
  if (ledger.left.ms + ledger.right.ms === 0)
    return <Typography color="text.secondary">Nothing is done on one side only.</Typography>;
  return (
    <Stack spacing={1}>
      <Table size="small" aria-label="Work by side">
        <TableHead>
          <TableRow>
            <TableCell />
            <TableCell align="right">Left</TableCell>
            <TableCell align="right">Right</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {[{ region: 'All', ...ledger }, ...ledger.regions].map(({ region, left, right }) => (
            <TableRow key={region}>
              <TableCell>{region}</TableCell>
              <TableCell align="right">{load(left)}</TableCell>
              <TableCell align="right">{load(right)}</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
      {ledger.uneven.map(({ blockId, title, more, count, ms }) => (
        <Stack key={blockId} direction="row" sx={{ alignItems: 'center' }}>
          <Typography sx={{ flex: 1 }}>
            “{title}” does {count > 0 ? `${count} more` : `${lengthText(ms)} more`} on the {more}.
          </Typography>
          <Button size="small" onClick={() => choose(blockId)}>
            Show
          </Button>
        </Stack>
      ))}
    </Stack>
  );
}
