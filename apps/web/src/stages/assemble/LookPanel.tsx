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
  valueName,
} from '@zest/core/lesson';
import { arcMinutes, inkOf, LEAST_ARCMIN, MAIN_TEXT, MIN_TEXT } from '@zest/core/overlay';
import { teacherText } from '@zest/core/words';
import { edit } from '../../app/lesson-slice.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useLessonPart } from '../../app/use-lesson.ts';
import { ChoiceField, WholeField, named } from '../../ui/fields.tsx';
import { ToggleChip } from '../../ui/ToggleChip.tsx';
import { slotName } from '../../ui/slot-name.ts';

type Look = Finish['look'];
const clockNames = {
  ring: teacherText('assemble.ring'),
  bar: teacherText('assemble.bar'),
  digits: teacherText('assemble.digits-alone'),
} as const;
const countNames = {
  up: teacherText('assemble.done'),
  down: teacherText('assemble.still-go'),
} as const;
const boardNames = {
  chapter: teacherText('assemble.section-titles'),
  name: teacherText('assemble.name-tags'),
  kit: teacherText('assemble.kit-when-needed'),
  rules: teacherText('assemble.rules-so-many-players'),
  floor: teacherText('assemble.floor-marks'),
  level: teacherText('assemble.easier-harder-forms'),
  next: teacherText('assemble.next-exercise-rests'),
  strip: teacherText('assemble.now-then-all-time'),
} as const;

/** How large each overlay is, and which ones stand where the teacher put them. */
function SlotSizes({ look }: { look: Look }) {
  const dispatch = useAppDispatch();
  const setSize = (slot: keyof Look['slots'], size: number) =>
    dispatch(
      edit(
        teacherText('assemble.size-of', { slot: slotName(slot) }),
        (draft) => void (draft.finish.look.slots[slot].size = size),
        true,
      ),
    );
  return (
    <>
      <Typography variant="body2">{teacherText('assemble.size-each-usual')}</Typography>
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
            {teacherText('assemble.stands-where-put', { slotName: slotName(slot) })}{' '}
            <Button
              size="small"
              onClick={() =>
                dispatch(
                  edit(
                    teacherText('assemble.place', { slotName: slotName(slot) }),
                    (draft) => void (draft.finish.look.slots[slot].place = null),
                  ),
                )
              }
            >
              {teacherText('assemble.place-free')}
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
        {teacherText('assemble.from-there-cues-counts', {
          n: followed.toFixed(0),
          n2: notes.toFixed(0),
        })}
      </Typography>
      {followed < LEAST_ARCMIN && (
        <Alert severity="warning">
          {teacherText('assemble.too-small', { least: LEAST_ARCMIN })}
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
          {teacherText('assemble.look-lesson')}
        </Typography>
      </AccordionSummary>
      <AccordionDetails>
        <Stack spacing={1.5}>
          <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 1.25 }}>
            <ChoiceField
              label={teacherText('assemble.clock')}
              value={look.clock}
              choices={clockStyles.map((one) => [one, clockNames[one]] as const)}
              onChange={(clock) => set({ clock })}
              sx={{ width: 140 }}
            />
            <ChoiceField
              label={teacherText('assemble.count-shows')}
              value={look.counting}
              choices={countings.map((one) => [one, countNames[one]] as const)}
              onChange={(counting) => set({ counting })}
              sx={{ width: 140 }}
            />
            <ChoiceField
              label={teacherText('assemble.colours')}
              value={look.theme}
              choices={named(themes, valueName)}
              onChange={(theme) => set({ theme })}
              sx={{ width: 150 }}
            />
            <TextField
              type="color"
              label={teacherText('assemble.your-colour')}
              value={look.accent}
              onChange={(event) => set({ accent: event.target.value.toLowerCase() })}
              sx={{ width: 110 }}
            />
            <WholeField
              label={teacherText('assemble.ground-covers')}
              value={look.backing}
              range={LIMITS.backing}
              onChange={(backing) => set({ backing })}
              sx={{ width: 150 }}
            />
          </Stack>
          {shown !== look.accent && (
            <Alert severity="info">{teacherText('assemble.colour-moved', { shown })}</Alert>
          )}
          <FormControlLabel
            label={teacherText('assemble.calm')}
            control={<Switch checked={look.calm} onChange={(_event, calm) => set({ calm })} />}
          />
          <FormControlLabel
            label={teacherText('assemble.side-figure')}
            control={<Switch checked={look.sides} onChange={(_event, sides) => set({ sides })} />}
          />
          <Typography variant="body2">{teacherText('assemble.board-beside-picture')}</Typography>
          <Stack
            direction="row"
            useFlexGap
            role="group"
            aria-label={teacherText('assemble.board')}
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
              label={teacherText('assemble.both-languages-once')}
              control={
                <Switch
                  checked={look.languages === 'both'}
                  onChange={(_event, both) => set({ languages: both ? 'both' : 'one' })}
                />
              }
            />
          )}
          <ChoiceField
            label={teacherText('assemble.students-look')}
            value={look.profile}
            choices={named(viewingProfiles, valueName)}
            onChange={(profile) => set({ profile })}
          />
          <Legible look={look} />
        </Stack>
      </AccordionDetails>
    </Accordion>
  );
}
