import { Alert, Button, Stack, Typography } from '@mui/material';
import { CLASS_LIMITS, type ClassPlan } from '@zest/contract';
import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { problemText } from '../../app/api.ts';
import { classApi } from '../../app/class-api.ts';
import { TextLine, WholeField } from '../../ui/fields.tsx';
import { planOf, type ClassPart } from './class-part.ts';

const PERCENT = { min: 0, max: 100 };
const EFFORT = { min: 1, max: 5 };

/** Its name, the rule for next week, how long entries are kept, and the way to erase it all. */
export function ClassSettings({ schoolClass }: ClassPart) {
  const [save, saving] = classApi.useSaveClassMutation();
  const [erase, erasing] = classApi.useEraseClassMutation();
  const [plan, setPlan] = useState<ClassPlan>(() => planOf(schoolClass));
  const [asked, setAsked] = useState(false);
  const navigate = useNavigate();
  const isChanged = JSON.stringify(plan) !== JSON.stringify(planOf(schoolClass));
  const { harder, easier } = plan.rule;
  const problem = problemText(saving.error ?? erasing.error);
  const eraseAll = async () => {
    const gone = await erase(schoolClass.id);
    if (!gone.error) void navigate('/classes');
  };
  return (
    <Stack spacing={2}>
      <TextLine
        label={teacherText('class.name-class')}
        value={plan.name}
        most={120}
        required
        onChange={(name) => setPlan({ ...plan, name })}
        sx={{ maxWidth: 340 }}
      />
      <Typography variant="h2">{teacherText('class.next-week-s-step')}</Typography>
      <Typography color="text.secondary">{teacherText('class.what-log-bench-proposes')}</Typography>
      <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 1.5, alignItems: 'center' }}>
        <Typography>{teacherText('class.harder-when-least')}</Typography>
        <WholeField
          label={teacherText('class.finish')}
          value={harder.finishedPercent}
          range={PERCENT}
          sx={{ width: 270 }}
          onChange={(finishedPercent) =>
            setPlan({ ...plan, rule: { easier, harder: { ...harder, finishedPercent } } })
          }
        />
        <Typography>{teacherText('class.effort-felt-most')}</Typography>
        <WholeField
          label={teacherText('class.5-harder')}
          value={harder.effortAtMost}
          range={EFFORT}
          onChange={(effortAtMost) =>
            setPlan({ ...plan, rule: { easier, harder: { ...harder, effortAtMost } } })
          }
        />
      </Stack>
      <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 1.5, alignItems: 'center' }}>
        <Typography>{teacherText('class.easier-when-fewer-than')}</Typography>
        <WholeField
          label={teacherText('class.finish-easier')}
          value={easier.finishedBelowPercent}
          range={PERCENT}
          sx={{ width: 270 }}
          onChange={(finishedBelowPercent) =>
            setPlan({ ...plan, rule: { harder, easier: { ...easier, finishedBelowPercent } } })
          }
        />
        <Typography>{teacherText('class.effort-felt-least')}</Typography>
        <WholeField
          label={teacherText('class.5-easier')}
          value={Math.round(easier.effortAtLeast)}
          range={EFFORT}
          onChange={(effortAtLeast) =>
            setPlan({ ...plan, rule: { harder, easier: { ...easier, effortAtLeast } } })
          }
        />
      </Stack>
      <Typography variant="h2">{teacherText('class.what-kept')}</Typography>
      <WholeField
        label={teacherText('class.weeks-entries-kept')}
        value={plan.keepWeeks}
        range={CLASS_LIMITS.keepWeeks}
        onChange={(keepWeeks) => setPlan({ ...plan, keepWeeks })}
        helper={teacherText('class.older-ones-erased-every')}
        sx={{ width: 260 }}
      />
      {problem && <Alert severity="error">{problem}</Alert>}
      <Stack direction="row" spacing={2}>
        <Button
          variant="contained"
          disabled={!isChanged || saving.isLoading}
          onClick={() => void save({ classId: schoolClass.id, ...plan })}
        >
          {teacherText('class.save')}
        </Button>
        <Button color="error" onClick={() => setAsked(true)}>
          {teacherText('class.erase-class')}
        </Button>
      </Stack>
      {asked && (
        <Alert
          severity="warning"
          action={
            <Button color="error" onClick={() => void eraseAll()}>
              {teacherText('class.erase-good')}
            </Button>
          }
        >
          {teacherText('class.class-students-all-they')}
        </Alert>
      )}
    </Stack>
  );
}
