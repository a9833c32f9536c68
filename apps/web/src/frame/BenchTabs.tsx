import { Box, Tab, Tabs } from '@mui/material';
import { teacherText } from '@zest/core/words';
import { Link, useLocation, useNavigate } from 'react-router';
import { classApi } from '../app/class-api.ts';
import { useOpenLesson, useSchedule } from '../app/use-lesson.ts';
import { benches, benchStates, type Bench } from '@zest/core/making';
import { useFindings } from './checked.ts';
import { StateMark } from './StateMark.tsx';

/** The bench that is open. */
export function useBench(): Bench {
  const { pathname } = useLocation();
  const last = pathname.split('/').at(-1);
  return benches.find((bench) => bench === last) ?? 'plan';
}

/** The seven benches, and how far each is. */
export function BenchTabs({ isNarrow }: { isNarrow: boolean }) {
  const { id, lesson } = useOpenLesson();
  const schedule = useSchedule();
  const findings = useFindings(id);
  const use = classApi.useLessonUseQuery(id).data;
  const navigate = useNavigate();
  const { search } = useLocation();
  const states = benchStates(lesson, schedule, {
    findings,
    shared: use?.shared ?? false,
    hasResults: use?.answered ?? false,
  });
  return (
    <Tabs
      value={useBench()}
      variant={isNarrow ? 'fullWidth' : 'standard'}
      aria-label={teacherText('frame.benches')}
      sx={{
        minHeight: 44,
        flex: 'none',
        '& .MuiTab-root': {
          minHeight: 44,
          minWidth: 0,
          p: 0,
          px: isNarrow ? 0.25 : 1.1,
          // As wide as its name: not all are as long in every language.
          ...(isNarrow && { flex: '1 1 auto' }),
          fontSize: isNarrow ? '0.72rem' : '0.95rem',
          letterSpacing: 0,
        },
      }}
    >
      {benches.map((bench) => (
        <Tab
          key={bench}
          value={bench}
          // Its state is told after its name, not in it.
          aria-label={teacherText(`bench.${bench}`)}
          aria-description={teacherText(`state.${states[bench]}`)}
          label={
            <Box
              component="span"
              sx={{
                display: 'flex',
                flexDirection: isNarrow ? 'column' : 'row',
                alignItems: 'center',
                gap: isNarrow ? 0.25 : 0.6,
              }}
            >
              <StateMark state={states[bench]} />
              {teacherText(`bench.${bench}`)}
            </Box>
          }
          component={Link}
          to={{ pathname: bench, search }}
          // The block chosen a moment ago is in the address before it is drawn.
          onClick={(event) => {
            if (event.ctrlKey || event.metaKey || event.shiftKey) return;
            event.preventDefault();
            void navigate({ pathname: bench, search: window.location.search });
          }}
        />
      ))}
    </Tabs>
  );
}
