import { Box, Button, Stack, Typography } from '@mui/material';
import {
  causeWords,
  findingWords,
  harmName,
  harms,
  type Cause,
  type Finding,
} from '@zest/core/checks';
import { clockText } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { useEffect, useRef } from 'react';
import { harmMarks } from './harm-marks.ts';
import './check.css';

interface LineProps {
  cause: Cause;
  isChosen: boolean;
  onChoose: () => void;
}

function Line({ cause, isChosen, onChoose }: LineProps) {
  const line = useRef<HTMLButtonElement>(null);
  const [{ atMs }] = cause.findings;
  const count = cause.findings.length;
  useEffect(() => {
    if (!isChosen || !line.current) return;
    line.current.scrollIntoView({ block: 'nearest' });
    // The keyboard goes along from line to line.
    if (document.activeElement?.classList.contains('check-line')) line.current.focus();
  }, [isChosen]);
  return (
    <li data-testid="finding">
      <button
        ref={line}
        type="button"
        className="check-line"
        aria-current={isChosen ? 'true' : undefined}
        onClick={onChoose}
      >
        <span>{causeWords(cause).say}</span>
        <span className="check-where">
          {count > 1 ? `×${count}` : atMs === null ? '' : clockText(atMs)}
        </span>
      </button>
    </li>
  );
}

interface FindingListProps {
  causes: readonly Cause[];
  chosen: Cause | null;
  onChoose: (cause: Cause) => void;
  onStep: (by: -1 | 1) => void;
}

/** What is open, by what a student would suffer from it, a line for each cause. */
export function FindingList({ causes, chosen, onChoose, onStep }: FindingListProps) {
  return harms.map((harm) => {
    const ofHarm = causes.filter((cause) => cause.harm === harm);
    const Mark = harmMarks[harm];
    return (
      ofHarm.length > 0 && (
        <Box key={harm} component="section" aria-label={harmName(harm)} sx={{ mb: 2 }}>
          <Typography
            variant="h3"
            component="h2"
            sx={{ display: 'flex', gap: 1, alignItems: 'center', mb: 0.5 }}
          >
            <Mark aria-hidden sx={{ color: 'primary.main' }} /> {harmName(harm)}
          </Typography>
          <ul
            className="check-list"
            onKeyDown={(event) => {
              if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return;
              event.preventDefault();
              onStep(event.key === 'ArrowDown' ? 1 : -1);
            }}
          >
            {ofHarm.map((cause) => (
              <Line
                key={cause.key}
                cause={cause}
                isChosen={cause.key === chosen?.key}
                onChoose={() => onChoose(cause)}
              />
            ))}
          </ul>
        </Box>
      )
    );
  });
}

interface IgnoredListProps {
  findings: readonly Finding[];
  onAgain: (finding: Finding) => void;
}

/** What was ignored, with the reason. */
export function IgnoredList({ findings, onAgain }: IgnoredListProps) {
  const title = teacherText('checking.ignored', { n: findings.length });
  if (findings.length === 0) return null;
  return (
    <Box component="section" aria-label={title}>
      <Typography variant="h3" component="h2">
        {title}
      </Typography>
      <ul className="check-list">
        {findings.map((finding) => (
          <li key={finding.key} data-testid="ignored">
            <Stack direction="row" sx={{ gap: 1, alignItems: 'center', px: 1.25, py: 0.5 }}>
              <Typography sx={{ flex: 1, color: 'text.secondary' }}>
                {findingWords(finding).say}{' '}
                <Box component="span" sx={{ color: 'text.primary' }}>
                  “{finding.waived}”
                </Box>
              </Typography>
              <Button size="small" onClick={() => onAgain(finding)}>
                {teacherText('checking.again')}
              </Button>
            </Stack>
          </li>
        ))}
      </ul>
    </Box>
  );
}
