import { Box, Button, Stack, Typography } from '@mui/material';
import { LIMITS, meetsTarget, type Target } from '@zest/core/lesson';
import type { Schedule } from '@zest/core/schedule';
import { clockText } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { edit } from '../../../app/lesson-slice.ts';
import { useAppDispatch } from '../../../app/store.ts';
import { useLessonPart } from '../../../app/use-lesson.ts';
import { LengthField } from '../../../ui/fields.tsx';
import { FitPanel } from './FitPanel.tsx';

/** How a length stands to its target, in words. */
function standing(ms: number, target: Target): string {
  const apart = ms - target.ms;
  if (apart === 0) return teacherText('meter.exactly', { aimMs: target.ms });
  return teacherText(apart < 0 ? 'meter.free' : 'meter.over', {
    ...{ apartMs: Math.abs(apart), aimMs: target.ms },
    isNear: String(meetsTarget(ms, target)),
  });
}

interface ClockProps {
  name: string;
  ms: number;
  which: 'video' | 'session';
}

/** How far a length reaches, and where its target lies. */
function TargetBar({ ms, target }: { ms: number; target: Target }) {
  const whole = Math.max(ms, target.ms, 1);
  return (
    <Box
      sx={{
        position: 'relative',
        height: 14,
        mt: 1,
        bgcolor: 'background.default',
        borderRadius: 1,
        border: 1,
        borderColor: 'divider',
      }}
    >
      <Box
        sx={{
          position: 'absolute',
          inset: 0,
          width: `${(ms / whole) * 100}%`,
          bgcolor: ms > target.ms + target.toleranceMs ? 'error.main' : 'secondary.main',
          borderRadius: 1,
        }}
      />
      <Box
        sx={{
          position: 'absolute',
          top: -4,
          bottom: -4,
          left: `calc(${(target.ms / whole) * 100}% - 2px)`,
          width: 4,
          bgcolor: 'text.primary',
        }}
      />
    </Box>
  );
}

/** One clock with its target: a bar, the words, and the figures of the target. */
function ClockGauge({ name, ms, which }: ClockProps) {
  const target = useLessonPart(({ targets }) => targets[which]);
  const dispatch = useAppDispatch();
  const set = (label: string, next: Target | null) =>
    dispatch(
      edit(
        teacherText('meter.of-the', { label, which }),
        (d) => void (d.targets[which] = next),
        true,
      ),
    );
  const change = (label: string, recipe: (target: Target) => void) =>
    dispatch(
      edit(
        teacherText('meter.of-the', { label, which }),
        ({ targets }) => void (targets[which] && recipe(targets[which])),
        true,
      ),
    );
  return (
    <Box>
      <Stack
        direction="row"
        useFlexGap
        sx={{ alignItems: 'end', justifyContent: 'space-between', flexWrap: 'wrap', gap: 1 }}
      >
        <Box>
          <Typography color="text.secondary">{name}</Typography>
          <Typography
            sx={{
              fontSize: '2rem',
              fontWeight: 700,
              fontVariantNumeric: 'tabular-nums',
              lineHeight: 1.1,
            }}
          >
            {clockText(ms)}
          </Typography>
        </Box>
        {target ? (
          <Stack direction="row" spacing={1}>
            <LengthField
              label={teacherText('meter.target')}
              value={target.ms}
              range={LIMITS.targetMs}
              sx={{ width: 104 }}
              onChange={(to) => change(teacherText('meter.target'), (d) => void (d.ms = to))}
            />
            <LengthField
              label={teacherText('meter.give-take')}
              value={target.toleranceMs}
              range={LIMITS.toleranceMs}
              sx={{ width: 104 }}
              onChange={(to) =>
                change(teacherText('meter.tolerance'), (d) => void (d.toleranceMs = to))
              }
            />
          </Stack>
        ) : (
          <Button
            onClick={() =>
              set(teacherText('meter.target'), {
                ms: Math.min(
                  LIMITS.targetMs.max,
                  Math.max(LIMITS.targetMs.min, Math.ceil(ms / 60_000) * 60_000),
                ),
                toleranceMs: 15_000,
              })
            }
          >
            {teacherText('meter.set-target')}
          </Button>
        )}
      </Stack>
      {target && (
        <>
          <TargetBar ms={ms} target={target} />
          <Stack direction="row" sx={{ mt: 0.5, alignItems: 'start' }}>
            <Typography sx={{ flex: 1 }}>{standing(ms, target)}</Typography>
            <Button
              size="small"
              onClick={() => set(teacherText('meter.target'), null)}
              sx={{ minHeight: 24, py: 0 }}
            >
              {teacherText('meter.leave-open')}
            </Button>
          </Stack>
        </>
      )}
    </Box>
  );
}

/** How the lesson's two clocks stand to their targets, and what would make them fit. */
export function SlotGauge({ schedule }: { schedule: Schedule }) {
  return (
    <Stack spacing={1.5} aria-live="polite">
      <ClockGauge name={teacherText('meter.video')} ms={schedule.videoMs} which="video" />
      <ClockGauge name={teacherText('meter.student')} ms={schedule.studentMs} which="session" />
      <FitPanel schedule={schedule} />
    </Stack>
  );
}
