import { Button, Chip, Stack, TextField, Tooltip, Typography } from '@mui/material';
import { causeWords, findingWords, type Cause, type Finding } from '@zest/core/checks';
import { findBlock, LIMITS, type Lesson } from '@zest/core/lesson';
import { clockText } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { Link } from 'react-router';
import { benchPath } from './bench-path.ts';
import { FindingPicture } from './FindingPicture.tsx';
import type { Settling } from './use-settling.ts';
import type { Checked } from './use-check.ts';

/** What a finding of several is told apart by: its block, or what it is about. */
function shortName({ blockId, figures, atMs }: Finding, lesson: Lesson): string {
  const block = blockId === null ? undefined : findBlock(lesson, blockId);
  const about = figures['part'] ?? figures['name'];
  const name = block?.title ?? (about === undefined ? teacherText('untitled') : String(about));
  return atMs === null ? name : `${name}, ${clockText(atMs)}`;
}

/** The teacher's word for ignoring it. */
function Reason({
  say,
  onKeep,
  onCancel,
}: {
  say: string;
  onKeep: (word: string) => void;
  onCancel: () => void;
}) {
  const [word, setWord] = useState('');
  return (
    <Stack
      direction="row"
      component="form"
      useFlexGap
      sx={{ gap: 1, alignItems: 'center', flexWrap: 'wrap' }}
      onSubmit={(event) => (event.preventDefault(), word.trim() !== '' && onKeep(word.trim()))}
      onKeyDown={(event) => event.key === 'Escape' && onCancel()}
    >
      <TextField
        autoFocus
        label={teacherText('checking.reason')}
        value={word}
        slotProps={{ htmlInput: { maxLength: LIMITS.line, 'aria-description': say } }}
        onChange={(event) => setWord(event.target.value)}
        sx={{ width: 260 }}
      />
      {word.trim() !== '' && (
        <Button type="submit" variant="outlined">
          {teacherText('checking.keep-reason')}
        </Button>
      )}
      <Button onClick={onCancel}>{teacherText('common.cancel')}</Button>
    </Stack>
  );
}

/** Which of the findings of one cause is looked at. */
function Members({
  cause,
  finding,
  lesson,
  onChoose,
}: {
  cause: Cause;
  finding: Finding;
  lesson: Lesson;
  onChoose: (key: string) => void;
}) {
  if (cause.findings.length === 1) return null;
  return (
    <Stack
      direction="row"
      useFlexGap
      role="group"
      aria-label={teacherText('checking.places')}
      sx={{ gap: 0.75, flexWrap: 'wrap', maxHeight: 104, overflow: 'auto' }}
    >
      {cause.findings.map((one) => (
        <Chip
          key={one.key}
          size="small"
          clickable
          label={shortName(one, lesson)}
          color={one.key === finding.key ? 'primary' : 'default'}
          variant={one.key === finding.key ? 'filled' : 'outlined'}
          aria-pressed={one.key === finding.key}
          onClick={() => onChoose(one.key)}
        />
      ))}
    </Stack>
  );
}

interface ActionsProps {
  lessonId: string;
  cause: Cause;
  finding: Finding;
  settling: Settling;
}

/** What can be done about it, with its key. */
function Actions({ lessonId, cause, finding, settling }: ActionsProps) {
  const { remedy } = findingWords(finding);
  const count = cause.findings.length;
  const fixable = cause.findings.filter((one) => one.remedy).length;
  return (
    <Stack direction="row" useFlexGap sx={{ gap: 1, flexWrap: 'wrap' }}>
      {remedy && (
        <Tooltip title={teacherText('checking.key', { key: 'P' })}>
          <Button variant="contained" onClick={settling.putRight}>
            {remedy}
          </Button>
        </Tooltip>
      )}
      {remedy && fixable > 1 && (
        <Button variant="outlined" onClick={settling.putAllRight}>
          {teacherText('checking.all', { n: fixable })}
        </Button>
      )}
      <Tooltip title={teacherText('checking.key', { key: 'G' })}>
        <Button variant="outlined" component={Link} to={benchPath(lessonId, finding)}>
          {teacherText('checking.go', { bench: teacherText(`bench.${finding.bench}`) })}
        </Button>
      </Tooltip>
      <Tooltip title={teacherText('checking.key', { key: 'I' })}>
        <Button onClick={() => settling.askWhy('one')}>{teacherText('checking.ignore')}</Button>
      </Tooltip>
      {count > 1 && (
        <Button onClick={() => settling.askWhy('all')}>
          {teacherText('checking.ignore-all', { n: count })}
        </Button>
      )}
    </Stack>
  );
}

interface FindingViewProps {
  lessonId: string;
  checked: Checked;
  at: { cause: Cause; finding: Finding };
  settling: Settling;
}

/** A finding where it is seen, what it means, and what can be done about it. */
export function FindingView({
  lessonId,
  checked,
  at: { cause, finding },
  settling,
}: FindingViewProps) {
  const { lesson, cut, choose } = checked;
  const { say } = findingWords(finding);
  const { why } = causeWords(cause);
  return (
    <Stack spacing={1.5} data-testid="finding-view">
      <FindingPicture key={finding.key} lesson={lesson} cut={cut} finding={finding} />
      <Typography variant="h3" component="h2">
        {say}
      </Typography>
      <Typography color="text.secondary">{why}</Typography>
      <Members cause={cause} finding={finding} lesson={lesson} onChoose={choose} />
      {settling.asks ? (
        <Reason
          key={finding.key}
          say={say}
          onKeep={settling.ignore}
          onCancel={settling.askNoMore}
        />
      ) : (
        <Actions {...{ lessonId, cause, finding, settling }} />
      )}
    </Stack>
  );
}
