import { Alert, Box, Button, Stack, Typography } from '@mui/material';
import {
  termOf,
  scoresCsv,
  type Came,
  type Term,
  type TermGrowth,
  type TermHard,
} from '@zest/core/results';
import { teacherText } from '@zest/core/words';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { api, problemText } from '../../app/api.ts';
import { classApi } from '../../app/class-api.ts';
import { EFFORT_FILL, paper } from '../../app/theme.ts';
import { shortDayText } from '../../ui/dates.ts';
import { saveCsv } from '../../ui/save-file.ts';
import { Spark } from '../../ui/Spark.tsx';
import { BringBack } from './BringBack.tsx';
import type { ClassPart } from './class-part.ts';
import { offsetMs } from './local-time.ts';

/** A week of a student as a sign: full, a ring, or a dot. */
const signs: Record<Came, { r: number; fill: string; stroke: string }> = {
  did: { r: 8, fill: paper.teal, stroke: paper.teal },
  looked: { r: 7, fill: 'none', stroke: paper.teal },
  away: { r: 2, fill: paper.line, stroke: paper.line },
};

const ways = Object.keys(signs) as Came[];

function CameSign({ came, label }: { came: Came; label: string }) {
  return (
    <svg width="24" height="24" viewBox="0 0 24 24" role="img" aria-label={label}>
      <title>{label}</title>
      <circle cx="12" cy="12" strokeWidth="2" {...signs[came]} />
    </svg>
  );
}

/** Students by weeks: who did something, who only looked, who was away; below, how it felt. */
function CameGrid({
  term,
  students,
  classId,
}: {
  term: Term;
  students: ClassPart['students'];
  classId: string;
}) {
  const nameOf = new Map(students.map(({ id, nickname }) => [id, nickname]));
  const days = term.weeks.map(shortDayText);
  return (
    <Box sx={{ overflowX: 'auto' }}>
      <Box
        component="table"
        aria-label={teacherText('term.came')}
        sx={{ borderCollapse: 'collapse', '& td, & th': { px: 0.75, py: 0.1, fontWeight: 400 } }}
      >
        <thead>
          <tr>
            <td />
            {days.map((day) => (
              <Box
                key={day}
                component="th"
                scope="col"
                sx={{ fontSize: '0.8rem', color: 'text.secondary' }}
              >
                {day}
              </Box>
            ))}
          </tr>
        </thead>
        <tbody>
          {term.came.map(({ studentId, byWeek }) => {
            const name = nameOf.get(studentId) ?? '';
            return (
              <tr key={studentId}>
                <Box component="th" scope="row" sx={{ textAlign: 'start', whiteSpace: 'nowrap' }}>
                  <Link to={`/classes/${classId}/students/${studentId}`}>{name}</Link>
                </Box>
                {byWeek.map((came, i) => (
                  <Box key={days[i]} component="td" sx={{ textAlign: 'center', lineHeight: 0 }}>
                    <CameSign
                      came={came}
                      label={teacherText('term.cell', {
                        ...{ name, day: days[i] ?? '' },
                        came: teacherText(`term.${came}`),
                      })}
                    />
                  </Box>
                ))}
              </tr>
            );
          })}
          <tr>
            <Box component="th" scope="row" sx={{ textAlign: 'start' }}>
              {teacherText('term.felt')}
            </Box>
            {term.effort.map((value, i) => (
              <Box
                key={days[i]}
                component="td"
                sx={{ textAlign: 'center', verticalAlign: 'bottom' }}
              >
                {value !== null && (
                  <Box
                    role="img"
                    aria-label={teacherText('term.felt-week', { day: days[i] ?? '', value })}
                    title={teacherText('term.felt-week', { day: days[i] ?? '', value })}
                    sx={{
                      ...{ width: 20, height: value * 9, mx: 'auto', borderRadius: '3px 3px 0 0' },
                      bgcolor: EFFORT_FILL[Math.round(value) - 1],
                      border: 1,
                      borderColor: paper.zest,
                    }}
                  />
                )}
              </Box>
            ))}
          </tr>
        </tbody>
      </Box>
      <Stack direction="row" useFlexGap sx={{ gap: 2, mt: 1, flexWrap: 'wrap' }}>
        {ways.map((came) => (
          <Stack key={came} direction="row" sx={{ alignItems: 'center' }} aria-hidden="true">
            <CameSign came={came} label={teacherText(`term.${came}`)} />
            <Typography variant="body2">{teacherText(`term.${came}`)}</Typography>
          </Stack>
        ))}
      </Stack>
    </Box>
  );
}

/** An exercise, the way the middle student went, and how many are better. */
function GrowthLine({ growth }: { growth: TermGrowth }) {
  const { title, change, better, students, byWeek } = growth;
  return (
    <Box
      component="li"
      sx={{
        ...{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr) 84px 72px auto', gap: 1.5 },
        ...{ alignItems: 'center', borderTop: 1, borderColor: 'divider', py: 0.75 },
      }}
    >
      <Typography sx={{ fontWeight: 650, overflowWrap: 'anywhere' }}>{title}</Typography>
      <Spark values={byWeek.filter((part) => part !== null)} isRising />
      <Typography
        sx={{
          fontWeight: 750,
          textAlign: 'end',
          color: change > 0 ? 'secondary.main' : 'text.primary',
        }}
      >
        {teacherText('term.change', { part: change })}
      </Typography>
      <Typography variant="body2">
        {teacherText('term.better', { better, all: students })}
      </Typography>
    </Box>
  );
}

/** A block that was left out, with how many did as a bar. */
function HardLine({ hard }: { hard: TermHard }) {
  const { title, lessonId, blockId, reason, students, of } = hard;
  const isPain = reason === 'it hurts';
  const words = teacherText(isPain ? 'term.hurts' : 'term.too-hard', { n: students, of });
  return (
    <Box component="li" sx={{ borderTop: 1, borderColor: 'divider', py: 0.75 }}>
      <Stack direction="row" spacing={1.5} sx={{ alignItems: 'baseline' }}>
        <Typography sx={{ fontWeight: 650, flex: 1 }}>
          {lessonId === null ? (
            title
          ) : (
            <Link to={`/lessons/${lessonId}/plan?block=${blockId}`}>{title}</Link>
          )}
        </Typography>
        <Typography variant="body2" color={isPain ? 'error' : 'text.primary'}>
          {words}
        </Typography>
      </Stack>
      <Box
        aria-hidden="true"
        sx={{ height: 8, borderRadius: 4, bgcolor: paper.floor, overflow: 'hidden', mt: 0.5 }}
      >
        <Box
          sx={{
            ...{ height: 1, width: `${(students / Math.max(1, of)) * 100}%` },
            bgcolor: isPain ? paper.fault : EFFORT_FILL[4],
          }}
        />
      </Box>
    </Box>
  );
}

const list = { listStyle: 'none', m: 0, p: 0 } as const;

/** A term at a glance: who came, what grew, what was too hard. */
export function TermPart({ schoolClass, students }: ClassPart) {
  const [now] = useState(Date.now);
  const log = classApi.useLogQuery({ classId: schoolClass.id });
  const lessons = api.useLessonsQuery().data ?? [];
  const entries = log.data?.entries;
  const term = useMemo(
    () =>
      entries &&
      termOf(
        students.map(({ id }) => id),
        entries,
        { now, offsetMs: offsetMs() },
      ),
    [entries, students, now],
  );
  const problem = problemText(log.error);
  if (problem) return <Alert severity="error">{problem}</Alert>;
  if (!term || !entries) return null;
  const save = () =>
    saveCsv(
      `${schoolClass.name}.csv`,
      scoresCsv(
        entries,
        new Map(students.map(({ id, nickname }) => [id, nickname])),
        new Map(lessons.map(({ id, title }) => [id, title])),
      ),
    );
  return (
    <Stack spacing={2.5}>
      {entries.length === 0 ? (
        <Typography>{teacherText('class.none-yet')}</Typography>
      ) : (
        <Box
          sx={{
            ...{ display: 'grid', gap: 4, alignItems: 'start' },
            gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, auto) minmax(380px, 1fr)' },
          }}
        >
          <Stack spacing={1}>
            <Typography variant="h2">{teacherText('term.came')}</Typography>
            <CameGrid term={term} students={students} classId={schoolClass.id} />
          </Stack>
          <Stack spacing={2.5}>
            <section aria-label={teacherText('term.grew')}>
              <Typography variant="h2">{teacherText('term.grew')}</Typography>
              <Typography variant="body2" color="text.secondary" sx={{ mb: 0.5 }}>
                {teacherText(term.grew.length > 0 ? 'term.grew-note' : 'term.grew-none')}
              </Typography>
              <Box component="ul" sx={list}>
                {term.grew.map((growth) => (
                  <GrowthLine key={growth.key} growth={growth} />
                ))}
              </Box>
            </section>
            <section aria-label={teacherText('term.hard')}>
              <Typography variant="h2">{teacherText('term.hard')}</Typography>
              {term.hard.length === 0 && (
                <Typography color="text.secondary">{teacherText('term.hard-none')}</Typography>
              )}
              <Box component="ul" sx={list}>
                {term.hard.map((hard) => (
                  <HardLine key={`${hard.reason} ${hard.title}`} hard={hard} />
                ))}
              </Box>
            </section>
          </Stack>
        </Box>
      )}
      <Stack direction="row" useFlexGap sx={{ gap: 1, flexWrap: 'wrap' }}>
        <Button variant="outlined" onClick={save}>
          {teacherText('term.save')}
        </Button>
        <BringBack schoolClass={schoolClass} students={students} />
      </Stack>
    </Stack>
  );
}
