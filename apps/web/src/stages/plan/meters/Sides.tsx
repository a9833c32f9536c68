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
import { teacherText } from '@zest/core/words';
import { useChosenBlock } from '../../../app/use-lesson.ts';

export function sidesHeadline({ left, right, uneven }: SidesLedger): {
  words: string;
  isWell: boolean;
} {
  if (left.ms + right.ms === 0)
    return { words: teacherText('meter.no-one-sided-work'), isWell: true };
  return uneven.length === 0
    ? { words: teacherText('meter.level'), isWell: true }
    : {
        words: teacherText('meter.uneven', { n: uneven.length }),
        isWell: false,
      };
}

const load = ({ count, ms }: SidePair['left']) =>
  count > 0 ? `${count} · ${lengthText(ms)}` : lengthText(ms);

/** Repetitions and time by side, in all and by body region, and what favours a side. */
export function Sides({ ledger }: { ledger: SidesLedger }) {
  const { choose } = useChosenBlock();
  if (ledger.left.ms + ledger.right.ms === 0)
    return (
      <Typography color="text.secondary">{teacherText('meter.nothing-done-one-side')}</Typography>
    );
  return (
    <Stack spacing={1}>
      <Table size="small" aria-label={teacherText('meter.work-side')}>
        <TableHead>
          <TableRow>
            <TableCell />
            <TableCell align="right">{teacherText('meter.left')}</TableCell>
            <TableCell align="right">{teacherText('meter.right')}</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {[{ region: teacherText('meter.all'), ...ledger }, ...ledger.regions].map(
            ({ region, left, right }) => (
              <TableRow key={region}>
                <TableCell>{region}</TableCell>
                <TableCell align="right">{load(left)}</TableCell>
                <TableCell align="right">{load(right)}</TableCell>
              </TableRow>
            ),
          )}
        </TableBody>
      </Table>
      {ledger.uneven.map(({ blockId, title, more, count, ms }) => (
        <Stack key={blockId} direction="row" sx={{ alignItems: 'center' }}>
          <Typography sx={{ flex: 1 }}>
            {teacherText('meter.more-on-side', {
              title,
              amount: count > 0 ? count : lengthText(ms),
              side: more,
            })}
          </Typography>
          <Button size="small" onClick={() => choose(blockId)}>
            {teacherText('meter.show')}
          </Button>
        </Stack>
      ))}
    </Stack>
  );
}
