import { Button, Stack, Typography } from '@mui/material';
import { kitCsv, planMarkdown, runSheetCsv } from '@zest/core/formats';
import { useOpenLesson, useSchedule } from '../../app/use-lesson.ts';
import { saveFile } from '../../ui/save-file.ts';

/** Spreadsheets know UTF-8 by the mark at its beginning. */
const UTF8_MARK = '\uFEFF';

/** The plan as files: to keep, to read, and for a spreadsheet. */
export function PlanFiles() {
  const { lesson } = useOpenLesson();
  const schedule = useSchedule();
  return (
    <Stack spacing={1}>
      <Typography component="h2" variant="h2">
        The plan as files
      </Typography>
      <Stack direction="row" useFlexGap spacing={1} sx={{ flexWrap: 'wrap' }}>
        <Button onClick={() => saveFile('lesson.zest.json', JSON.stringify(lesson, null, 2), 'application/json')}>Save the lesson file</Button>
        <Button onClick={() => saveFile('plan.md', planMarkdown(lesson, schedule), 'text/markdown')}>Plan (Markdown)</Button>
        <Button onClick={() => saveFile('run-sheet.csv', UTF8_MARK + runSheetCsv(schedule), 'text/csv')}>Run sheet (CSV)</Button>
        <Button onClick={() => saveFile('kit.csv', UTF8_MARK + kitCsv(schedule), 'text/csv')}>Kit list (CSV)</Button>
      </Stack>
    </Stack>
  );
}
