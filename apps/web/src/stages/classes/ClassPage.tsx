import { Alert, Paper, Tab, Tabs, Typography } from '@mui/material';
import { useParams, useSearchParams } from 'react-router';
import { problemText } from '../../app/api.ts';
import { classApi } from '../../app/class-api.ts';
import { ClassSettings } from './ClassSettings.tsx';
import { Levels } from './Levels.tsx';
import { PageFrame } from '../../frame/PageFrame.tsx';
import { Praise } from './Praise.tsx';
import { Progress } from './Progress.tsx';
import { Students } from './Students.tsx';

const parts = {
  students: ['Students', Students],
  progress: ['Progress', Progress],
  praise: ['Praise', Praise],
  levels: ['Levels', Levels],
  settings: ['Rule and privacy', ClassSettings],
} as const;
type PartName = keyof typeof parts;
const names = Object.keys(parts) as PartName[];

/** One class: its students, how they come on, whom to praise, levels, and what is kept. */
export function ClassPage() {
  const { classId = '' } = useParams();
  const classes = classApi.useClassesQuery();
  const students = classApi.useStudentsQuery(classId);
  const [search, setSearch] = useSearchParams();
  const chosen = names.find((name) => name === search.get('part')) ?? 'students';
  const schoolClass = classes.data?.find(({ id }) => id === classId);
  const [, Part] = parts[chosen];
  const problem = problemText(classes.error ?? students.error);
  return (
    <PageFrame title={schoolClass?.name ?? 'Class'} back={{ to: '/classes', name: 'All classes' }}>
      {problem && <Alert severity="error">{problem}</Alert>}
      {classes.data && !schoolClass && !problem && (
        <Alert severity="info">This class is not there any more.</Alert>
      )}
      <Tabs
        value={chosen}
        onChange={(_event, next: PartName) => setSearch({ part: next }, { replace: true })}
        aria-label="Parts of the class"
        sx={{ mb: 2 }}
        variant="scrollable"
      >
        {names.map((name) => (
          <Tab key={name} value={name} label={parts[name][0]} />
        ))}
      </Tabs>
      {schoolClass && students.data ? (
        <Paper variant="outlined" sx={{ p: 2 }}>
          <Part schoolClass={schoolClass} students={students.data} />
        </Paper>
      ) : (
        !problem && <Typography>Opening …</Typography>
      )}
    </PageFrame>
  );
}
