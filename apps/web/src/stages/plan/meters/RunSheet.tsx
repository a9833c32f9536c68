import { Box, Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material';
import { runSheet, type Schedule } from '@zest/core/schedule';
import { clockText, lengthText } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
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
    return (
      <Typography color="text.secondary">{teacherText('meter.choose-block-see-run')}</Typography>
    );
  return (
    <>
      <Box tabIndex={0} role="region" aria-label={teacherText('meter.run-sheet-block')}>
        <Table
          size="small"
          stickyHeader
          sx={{ fontVariantNumeric: 'tabular-nums', '& td, & th': { px: 0.75 } }}
        >
          <TableHead>
            <TableRow>
              <TableCell>{teacherText('meter.video')}</TableCell>
              <TableCell>{teacherText('meter.student')}</TableCell>
              <TableCell>{teacherText('meter.what')}</TableCell>
              <TableCell align="right">{teacherText('meter.length')}</TableCell>
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
