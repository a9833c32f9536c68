import {
  Alert,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  Stack,
  Typography,
} from '@mui/material';
import { lensFrom } from '@zest/core/framing';
import { LIMITS, type Lesson } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { UndoOfLesson } from '../../../ui/draft.ts';
import { LengthOfSpaceField, WholeField } from '../../../ui/fields.tsx';

const THING = { min: 5, max: 1_000 };
const DISTANCE = { min: 20, max: 3_000 };
const PERCENT = { min: 1, max: 100 };

interface CalibrateProps {
  units: Lesson['settings']['units'];
  onMeasured: (lensMm: number) => void;
}

/** Finds the lens by filming a thing of known size: for cameras whose figures nobody knows. */
export function Calibrate({ units, onMeasured }: CalibrateProps) {
  const [isOpen, setOpen] = useState(false);
  const [thingCm, setThing] = useState(100);
  const [distanceCm, setDistance] = useState(200);
  const [percent, setPercent] = useState(50);
  const lensMm = Math.round(lensFrom(thingCm, distanceCm, percent / 100));
  const isPossible = lensMm >= LIMITS.lensMm.min && lensMm <= LIMITS.lensMm.max;
  return (
    <>
      <Button onClick={() => setOpen(true)}>{teacherText('setup.measure-my-camera')}</Button>
      <Dialog open={isOpen} onClose={() => setOpen(false)}>
        <DialogTitle>{teacherText('setup.measure-my-camera')}</DialogTitle>
        <DialogContent>
          <UndoOfLesson value={false}>
            <Stack spacing={2} sx={{ pt: 1 }}>
              <Typography>{teacherText('setup.hold-something-known-length')}</Typography>
              <LengthOfSpaceField
                units={units}
                label={teacherText('setup.length-thing')}
                value={thingCm}
                range={THING}
                onChange={setThing}
                sx={{ width: 220 }}
              />
              <LengthOfSpaceField
                units={units}
                label={teacherText('setup.distance-from-camera')}
                value={distanceCm}
                range={DISTANCE}
                onChange={setDistance}
                sx={{ width: 220 }}
              />
              <WholeField
                label={teacherText('setup.part-long-side')}
                value={percent}
                range={PERCENT}
                onChange={setPercent}
                sx={{ width: 220 }}
              />
              {isPossible ? (
                <Typography data-testid="measured-lens">
                  {teacherText('setup.lens-mm-picture-36', { lensMm })}
                </Typography>
              ) : (
                <Alert severity="warning">
                  {teacherText('setup.would-mm-cameras-have', {
                    lensMm,
                    min: LIMITS.lensMm.min,
                    max: LIMITS.lensMm.max,
                  })}
                </Alert>
              )}
            </Stack>
          </UndoOfLesson>
        </DialogContent>
        <DialogActions>
          <Button onClick={() => setOpen(false)}>{teacherText('setup.cancel')}</Button>
          <Button
            variant="contained"
            disabled={!isPossible}
            onClick={() => {
              onMeasured(lensMm);
              setOpen(false);
            }}
          >
            {teacherText('setup.use')}
          </Button>
        </DialogActions>
      </Dialog>
    </>
  );
}
