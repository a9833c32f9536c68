import { Alert, Paper, Tab, Tabs, Typography } from '@mui/material';
import { teacherText } from '@zest/core/words';
import { useParams, useSearchParams } from 'react-router';
import { problemText } from '../../app/api.ts';
import { classApi } from '../../app/class-api.ts';
import { ClassSettings } from './ClassSettings.tsx';
import { Levels } from './Levels.tsx';
import { PageFrame } from '../../frame/PageFrame.tsx';
import { Praise } from './Praise.tsx';
import { Students } from './Students.tsx';
import { TermPart } from './TermPart.tsx';

const parts = {
  term: TermPart,
  students: Students,
  praise: Praise,
  levels: Levels,
  settings: ClassSettings,
} as const;
type PartName = keyof typeof parts;
const names = Object.keys(parts) as PartName[];

/** One class: its term, its students, whom to praise, levels, and what is kept. */
export function ClassPage() {
  const { classId = '' } = useParams();
  const classes = classApi.useClassesQuery();
  const students = classApi.useStudentsQuery(classId);
  const [search, setSearch] = useSearchParams();
  const chosen = names.find((name) => name === search.get('part')) ?? 'students';
  const schoolClass = classes.data?.find(({ id }) => id === classId);
  const Part = parts[chosen];
  const problem = problemText(classes.error ?? students.error);
  return (
    <PageFrame
      title={schoolClass?.name ?? teacherText('class.untitled')}
      back={{ to: '/classes', name: teacherText('class.back') }}
    >
      {problem && <Alert severity="error">{problem}</Alert>}
      {classes.data && !schoolClass && !problem && (
        <Alert severity="info">{teacherText('class.gone')}</Alert>
      )}
      <Tabs
        value={chosen}
        onChange={(_event, next: PartName) => setSearch({ part: next }, { replace: true })}
        aria-label={teacherText('class.parts')}
        sx={{ mb: 2 }}
        variant="scrollable"
      >
        {names.map((name) => (
          <Tab key={name} value={name} label={teacherText(`class.${name}`)} />
        ))}
      </Tabs>
      {schoolClass && students.data ? (
        <Paper variant="outlined" sx={{ p: 2 }}>
          <Part schoolClass={schoolClass} students={students.data} />
        </Paper>
      ) : (
        !problem && <Typography>{teacherText('class.opening')}</Typography>
      )}
    </PageFrame>
  );
}
