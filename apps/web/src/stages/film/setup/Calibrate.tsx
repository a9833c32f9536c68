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
      <Button onClick={() => setOpen(true)}>Measure my camera</Button>
      <Dialog open={isOpen} onClose={() => setOpen(false)}>
        <DialogTitle>Measure my camera</DialogTitle>
        <DialogContent>
          <UndoOfLesson value={false}>
            <Stack spacing={2} sx={{ pt: 1 }}>
              <Typography>
                Hold something of known length, such as a stick of 1 m, straight across the picture
                and measure its distance from the camera. How much of the picture’s long side does
                it take?
              </Typography>
              <LengthOfSpaceField
                units={units}
                label="Length of the thing"
                value={thingCm}
                range={THING}
                onChange={setThing}
                sx={{ width: 220 }}
              />
              <LengthOfSpaceField
                units={units}
                label="Distance from the camera"
                value={distanceCm}
                range={DISTANCE}
                onChange={setDistance}
                sx={{ width: 220 }}
              />
              <WholeField
                label="Part of the long side, %"
                value={percent}
                range={PERCENT}
                onChange={setPercent}
                sx={{ width: 220 }}
              />
              {isPossible ? (
                <Typography data-testid="measured-lens">
                  That is a lens of {lensMm} mm (as on a picture 36 mm wide).
                </Typography>
              ) : (
                <Alert severity="warning">
                  That would be {lensMm} mm; cameras have {LIMITS.lensMm.min} to {LIMITS.lensMm.max}{' '}
                  mm. Measure again.
                </Alert>
              )}
            </Stack>
          </UndoOfLesson>
        </DialogContent>
        <DialogActions>
          <Button onClick={() => setOpen(false)}>Cancel</Button>
          <Button
            variant="contained"
            disabled={!isPossible}
            onClick={() => {
              onMeasured(lensMm);
              setOpen(false);
            }}
          >
            Use it
          </Button>
        </DialogActions>
      </Dialog>
    </>
  );
}
