import { Box, Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material';
import { runSheet, type Schedule } from '@zest/core/schedule';
import { clockText, lengthText } from '@zest/core/time';
import { useMemo } from 'react';
import { useChosenBlock, useLessonPart } from '../../../app/use-lesson.ts';

/** The chosen block's part of the run sheet, on both clocks, down to each repetition and call. */
export function RunSheet({ schedule }: { schedule: Schedule }) {
  const { block } = useChosenBlock();
  const language = useLessonPart(({ settings }) => settings.language);
  const lines = useMemo(() => {
    const scheduled = schedule.blocks.find((planned) => planned.block.id === block?.id);
    if (!scheduled) return [];
    const section = schedule.sections.find(({ section: s }) => s.id === scheduled.sectionId);
    return section
      ? runSheet(
          { ...schedule, sections: [{ ...section, blocks: [scheduled] }], blocks: [scheduled] },
          language,
        ).slice(1)
      : [];
  }, [schedule, block, language]);
  if (lines.length === 0)
    return <Typography color="text.secondary">Choose a block to see its run sheet.</Typography>;
  return (
    <>
      <Box tabIndex={0} role="region" aria-label="Run sheet of the block">
        <Table
          size="small"
          stickyHeader
          sx={{ fontVariantNumeric: 'tabular-nums', '& td, & th': { px: 0.75 } }}
        >
          <TableHead>
            <TableRow>
              <TableCell>Video</TableCell>
              <TableCell>Student</TableCell>
              <TableCell>What</TableCell>
              <TableCell align="right">Length</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {lines.map((line, i) => (
              <TableRow key={i}>
                <TableCell>{clockText(line.videoMs)}</TableCell>
                <TableCell>{clockText(line.studentMs)}</TableCell>
                <TableCell
                  sx={{
                    fontWeight: line.level === 'block' ? 700 : 400,
                    fontStyle: line.level === 'call' ? 'italic' : 'normal',
                  }}
                >
                  {line.level === 'call' ? `“${line.text}”` : line.text}
                </TableCell>
                <TableCell align="right" sx={{ whiteSpace: 'nowrap' }}>
                  {line.durationMs > 0 ? lengthText(line.durationMs) : ''}
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </Box>
    </>
  );
}
