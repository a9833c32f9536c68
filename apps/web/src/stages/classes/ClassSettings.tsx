import { Alert, Button, Stack, Typography } from '@mui/material';
import { CLASS_LIMITS, type ClassPlan } from '@zest/contract';
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
        label="Name of the class"
        value={plan.name}
        most={120}
        required
        onChange={(name) => setPlan({ ...plan, name })}
        sx={{ maxWidth: 340 }}
      />
      <Typography variant="h2">Next week’s step</Typography>
      <Typography color="text.secondary">
        What the Log bench proposes after a lesson. You decide.
      </Typography>
      <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 1.5, alignItems: 'center' }}>
        <Typography>Harder when at least</Typography>
        <WholeField
          label="finish (%)"
          value={harder.finishedPercent}
          range={PERCENT}
          onChange={(finishedPercent) =>
            setPlan({ ...plan, rule: { easier, harder: { ...harder, finishedPercent } } })
          }
        />
        <Typography>and the effort felt is at most</Typography>
        <WholeField
          label="of 5, harder"
          value={harder.effortAtMost}
          range={EFFORT}
          onChange={(effortAtMost) =>
            setPlan({ ...plan, rule: { easier, harder: { ...harder, effortAtMost } } })
          }
        />
      </Stack>
      <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 1.5, alignItems: 'center' }}>
        <Typography>Easier when fewer than</Typography>
        <WholeField
          label="finish (%), easier"
          value={easier.finishedBelowPercent}
          range={PERCENT}
          onChange={(finishedBelowPercent) =>
            setPlan({ ...plan, rule: { harder, easier: { ...easier, finishedBelowPercent } } })
          }
        />
        <Typography>or the effort felt is at least</Typography>
        <WholeField
          label="of 5, easier"
          value={Math.round(easier.effortAtLeast)}
          range={EFFORT}
          onChange={(effortAtLeast) =>
            setPlan({ ...plan, rule: { harder, easier: { ...easier, effortAtLeast } } })
          }
        />
      </Stack>
      <Typography variant="h2">What is kept</Typography>
      <WholeField
        label="Weeks entries are kept"
        value={plan.keepWeeks}
        range={CLASS_LIMITS.keepWeeks}
        onChange={(keepWeeks) => setPlan({ ...plan, keepWeeks })}
        helper="Older ones are erased every day."
        sx={{ width: 260 }}
      />
      {problem && <Alert severity="error">{problem}</Alert>}
      <Stack direction="row" spacing={2}>
        <Button
          variant="contained"
          disabled={!isChanged || saving.isLoading}
          onClick={() => void save({ classId: schoolClass.id, ...plan })}
        >
          Save
        </Button>
        <Button color="error" onClick={() => setAsked(true)}>
          Erase the class …
        </Button>
      </Stack>
      {asked && (
        <Alert
          severity="warning"
          action={
            <Button color="error" onClick={() => void eraseAll()}>
              Erase for good
            </Button>
          }
        >
          The class, its students, all they sent and its links are erased. Lessons stay. This cannot
          be taken back.
        </Alert>
      )}
    </Stack>
  );
}
