import {
  Accordion,
  AccordionDetails,
  AccordionSummary,
  Alert,
  Button,
  FormControlLabel,
  Stack,
  Switch,
  TextField,
  Typography,
} from '@mui/material';
import ExpandMoreIcon from '@mui/icons-material/ExpandMore';
import {
  boardKinds,
  clockStyles,
  countings,
  LIMITS,
  overlaySlots,
  themes,
  viewingProfiles,
  type Finish,
} from '@zest/core/lesson';
import { arcMinutes, inkOf, LEAST_ARCMIN, MAIN_TEXT, MIN_TEXT } from '@zest/core/overlay';
import { edit } from '../../app/lesson-slice.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useLessonPart } from '../../app/use-lesson.ts';
import { ChoiceField, WholeField, same } from '../../ui/fields.tsx';
import { ToggleChip } from '../../ui/ToggleChip.tsx';
import { slotName } from '../../ui/slot-name.ts';

type Look = Finish['look'];
const clockNames = { ring: 'a ring', bar: 'a bar', digits: 'digits alone' } as const;
const countNames = { up: 'done', down: 'still to go' } as const;
const boardNames = {
  chapter: 'section titles',
  name: 'name tags',
  kit: 'kit when it is needed',
  rules: 'rules for so many players',
  floor: 'floor marks',
  level: 'easier and harder forms',
  next: 'the next exercise, in rests',
  strip: 'now and then, all the time',
} as const;

/** How large each overlay is, and which ones stand where the teacher put them. */
function SlotSizes({ look }: { look: Look }) {
  const dispatch = useAppDispatch();
  const setSize = (slot: keyof Look['slots'], size: number) =>
    dispatch(
      edit(
        `Size: ${slotName(slot)}`,
        (draft) => void (draft.finish.look.slots[slot].size = size),
        true,
      ),
    );
  return (
    <>
      <Typography variant="body2">Size of each, % of the usual:</Typography>
      <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 1 }}>
        {overlaySlots.map((slot) => (
          <WholeField
            key={slot}
            label={slotName(slot)}
            value={look.slots[slot].size}
            range={LIMITS.slotSize}
            onChange={(size) => setSize(slot, size)}
            sx={{ width: 86 }}
          />
        ))}
      </Stack>
      {overlaySlots
        .filter((slot) => look.slots[slot].place !== null)
        .map((slot) => (
          <Typography key={slot} variant="body2">
            The {slotName(slot)} stands where you put it.{' '}
            <Button
              size="small"
              onClick={() =>
                dispatch(
                  edit(
                    `Place of the ${slotName(slot)}`,
                    (draft) => void (draft.finish.look.slots[slot].place = null),
                  ),
                )
              }
            >
              Wherever it is in nobody’s way
            </Button>
          </Typography>
        ))}
    </>
  );
}

/** How large it all looks from where students are. */
function Legible({ look }: { look: Look }) {
  const smallestOf = Math.min(...overlaySlots.map((slot) => look.slots[slot].size)) / 100;
  const followed = arcMinutes(MAIN_TEXT * smallestOf, look.profile);
  const notes = arcMinutes(MIN_TEXT * smallestOf, look.profile);
  return (
    <>
      <Typography variant="body2" data-testid="legible">
        From there cues, counts and cautions look {followed.toFixed(0)} minutes of arc high, notes
        and what comes next {notes.toFixed(0)}.
      </Typography>
      {followed < LEAST_ARCMIN && (
        <Alert severity="warning">
          Less than {LEAST_ARCMIN} minutes cannot be read well (ISO 9241-303). Make them larger
          above, or ask for a larger screen or a shorter distance.
        </Alert>
      )}
    </>
  );
}

/** How the whole lesson looks, in one place. */
export function LookPanel({ hasSecond }: { hasSecond: boolean }) {
  const look = useLessonPart(({ finish }) => finish.look);
  const dispatch = useAppDispatch();
  const set = (part: Partial<Look>) =>
    dispatch(
      edit(
        `Look: ${Object.keys(part).join()}`,
        (draft) => void Object.assign(draft.finish.look, part),
        'accent' in part || 'backing' in part,
      ),
    );
  const toggle = (kind: (typeof boardKinds)[number]) =>
    set({
      boards: look.boards.includes(kind)
        ? look.boards.filter((board) => board !== kind)
        : [...look.boards, kind],
    });
  const shown = inkOf(look).accent;
  return (
    <Accordion disableGutters variant="outlined">
      <AccordionSummary expandIcon={<ExpandMoreIcon />}>
        <Typography component="h3" sx={{ fontSize: '1.05rem', fontWeight: 700 }}>
          Look of the lesson
        </Typography>
      </AccordionSummary>
      <AccordionDetails>
        <Stack spacing={1.5}>
          <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 1.25 }}>
            <ChoiceField
              label="Clock"
              value={look.clock}
              choices={clockStyles.map((one) => [one, clockNames[one]] as const)}
              onChange={(clock) => set({ clock })}
              sx={{ width: 140 }}
            />
            <ChoiceField
              label="Count shows"
              value={look.counting}
              choices={countings.map((one) => [one, countNames[one]] as const)}
              onChange={(counting) => set({ counting })}
              sx={{ width: 140 }}
            />
            <ChoiceField
              label="Colours"
              value={look.theme}
              choices={same(themes)}
              onChange={(theme) => set({ theme })}
              sx={{ width: 150 }}
            />
            <TextField
              type="color"
              label="Your colour"
              value={look.accent}
              onChange={(event) => set({ accent: event.target.value.toLowerCase() })}
              sx={{ width: 110 }}
            />
            <WholeField
              label="Ground covers, %"
              value={look.backing}
              range={LIMITS.backing}
              onChange={(backing) => set({ backing })}
              sx={{ width: 150 }}
            />
          </Stack>
          {shown !== look.accent && (
            <Alert severity="info">
              Your colour cannot be read on its ground, so {shown} is shown, as near to it as can be
              read.
            </Alert>
          )}
          <FormControlLabel
            label="Calm: the clock changes once a second, and only what is needed is said"
            control={<Switch checked={look.calm} onChange={(_event, calm) => set({ calm })} />}
          />
          <FormControlLabel
            label="A drawn figure shows the side"
            control={<Switch checked={look.sides} onChange={(_event, sides) => set({ sides })} />}
          />
          <Typography variant="body2">On the board beside the picture:</Typography>
          <Stack
            direction="row"
            useFlexGap
            role="group"
            aria-label="On the board"
            sx={{ flexWrap: 'wrap', gap: 0.75 }}
          >
            {boardKinds.map((kind) => (
              <ToggleChip
                key={kind}
                label={boardNames[kind]}
                isOn={look.boards.includes(kind)}
                onToggle={() => toggle(kind)}
              />
            ))}
          </Stack>
          <SlotSizes look={look} />
          {hasSecond && (
            <FormControlLabel
              label="Both languages at once"
              control={
                <Switch
                  checked={look.languages === 'both'}
                  onChange={(_event, both) => set({ languages: both ? 'both' : 'one' })}
                />
              }
            />
          )}
          <ChoiceField
            label="Students look at a"
            value={look.profile}
            choices={same(viewingProfiles)}
            onChange={(profile) => set({ profile })}
          />
          <Legible look={look} />
        </Stack>
      </AccordionDetails>
    </Accordion>
  );
}
