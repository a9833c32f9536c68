import {
  Alert,
  Box,
  Button,
  Card,
  CardActionArea,
  CardContent,
  Link as TextLink,
  Paper,
  Stack,
  TextField,
  Typography,
} from '@mui/material';
import { usualRule } from '@zest/core/results';
import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { problemText } from '../../app/api.ts';
import { classApi } from '../../app/class-api.ts';
import { PageFrame } from '../../frame/PageFrame.tsx';
import { momentText } from '../../ui/dates.ts';

/** A school year, about. */
const USUAL_WEEKS = 40;
const erasedWords = {
  student: teacherText('class.student-request'),
  class: teacherText('class.class'),
  'kept long enough': teacherText('class.entries-kept-long-set'),
} as const;

function Erasures() {
  const erasures = classApi.useErasuresQuery();
  if (!erasures.data || erasures.data.length === 0) return null;
  return (
    <Paper variant="outlined" sx={{ p: 2, mt: 3 }}>
      <Typography variant="h2">{teacherText('class.what-was-erased')}</Typography>
      <Typography color="text.secondary">{teacherText('class.was-done-never-whose')}</Typography>
      <ul>
        {erasures.data.map(({ id, what, entries, at }) => (
          <li key={id}>
            {teacherText('class.erased-line', {
              ...{ when: momentText(at), what: erasedWords[what], entries },
            })}
          </li>
        ))}
      </ul>
    </Paper>
  );
}

/** All classes, and a new one. */
export function ClassesPage() {
  const classes = classApi.useClassesQuery();
  const [make, making] = classApi.useMakeClassMutation();
  const [name, setName] = useState('');
  const navigate = useNavigate();
  const problem = problemText(classes.error ?? making.error);
  const start = async () => {
    const made = await make({
      name: name.trim(),
      keepWeeks: USUAL_WEEKS,
      rule: usualRule,
      credits: [],
    });
    if (made.data) void navigate(`/classes/${made.data.id}`);
  };
  return (
    <PageFrame
      title={teacherText('class.classes')}
      back={{ to: '/', name: teacherText('class.all-lessons') }}
    >
      <Stack
        component="form"
        direction="row"
        useFlexGap
        sx={{ gap: 2, flexWrap: 'wrap', mb: 3 }}
        onSubmit={(event) => {
          event.preventDefault();
          void start();
        }}
      >
        <TextField
          label={teacherText('class.name-new-class')}
          value={name}
          onChange={(event) => setName(event.target.value)}
          slotProps={{ htmlInput: { maxLength: 120 } }}
          sx={{ width: { xs: '100%', sm: 340 } }}
        />
        <Button type="submit" variant="contained" disabled={name.trim() === '' || making.isLoading}>
          {teacherText('class.start-class')}
        </Button>
      </Stack>
      {problem && <Alert severity="error">{problem}</Alert>}
      {classes.data?.length === 0 && (
        <Alert severity="info">{teacherText('class.no-classes-yet-class')}</Alert>
      )}
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: 'repeat(auto-fill, minmax(260px, 1fr))',
          gap: 2,
        }}
      >
        {classes.data?.map(({ id, name: className, students }) => (
          <Card key={id} variant="outlined">
            <CardActionArea
              component={Link}
              to={`/classes/${id}${students > 0 ? '?part=term' : ''}`}
            >
              <CardContent>
                <Typography variant="h2" sx={{ overflowWrap: 'anywhere' }}>
                  {className}
                </Typography>
                <Typography color="text.secondary">
                  {teacherText('class.size', { students })}
                </Typography>
              </CardContent>
            </CardActionArea>
          </Card>
        ))}
      </Box>
      <Erasures />
      <Typography sx={{ mt: 3 }}>
        <TextLink href="/privacy" target="_blank" rel="noopener">
          {teacherText('class.what-kept-students-families')}
        </TextLink>
      </Typography>
    </PageFrame>
  );
}
