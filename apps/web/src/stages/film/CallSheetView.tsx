import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import {
  Alert,
  Button,
  Chip,
  FormControlLabel,
  IconButton,
  Paper,
  Stack,
  Switch,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  Typography,
} from '@mui/material';
import DragIndicatorIcon from '@mui/icons-material/DragIndicator';
import { callSheet, changeText, shotsToFilm, type CallSheetLine } from '@zest/core/framing';
import type { Lesson, Movement } from '@zest/core/lesson';
import { portraitOf } from '@zest/core/making';
import { clockText, lengthText, wholeSeconds } from '@zest/core/time';
import { teacherText, type TeacherWord } from '@zest/core/words';
import { useMemo, useState } from 'react';
import { routes, urlOf } from '@zest/contract';
import { saveFirst } from '../../app/autosave.ts';
import { edit } from '../../app/lesson-slice.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useOpenLesson, useSchedule, useTakes } from '../../app/use-lesson.ts';
import { fetchFile } from '../../ui/save-file.ts';
import { dragWords, sortable } from '../../ui/dragging.ts';
import { ShotPicture } from './ShotPicture.tsx';
import { shotProgress, type ShotProgress } from './retakes.ts';

const roundText = (ms: number) => lengthText(wholeSeconds(ms));

interface LineProps {
  line: CallSheetLine;
  movement: Movement;
  takesEach: number;
  progress: ShotProgress;
  onFilm: (blockId: string, shotId: string) => void;
}

function Line({
  movement,
  line: { toFilm, change, startMs, filmingMs },
  takesEach,
  progress,
  onFilm,
}: LineProps) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({
    attributes: sortable,
    id: toFilm.id,
  });
  const { block, shot, kit, durationMs } = toFilm;
  const first = change ? changeText(change, toFilm) : [];
  return (
    <TableRow
      ref={setNodeRef}
      style={{ transform: CSS.Transform.toString(transform), transition: transition ?? 'none' }}
      data-testid="call-sheet-line"
    >
      <TableCell sx={{ pr: 0 }}>
        <IconButton
          size="small"
          aria-label={teacherText('film.carry', { title: block.title, angle: shot.angle })}
          {...attributes}
          {...listeners}
        >
          <DragIndicatorIcon fontSize="small" />
        </IconButton>
      </TableCell>
      <TableCell sx={{ py: 0.5, px: 0.5 }}>
        <ShotPicture shot={shot} movement={movement} />
      </TableCell>
      <TableCell sx={{ fontVariantNumeric: 'tabular-nums' }}>{clockText(startMs)}</TableCell>
      <TableCell sx={{ color: first.length > 0 ? 'primary.main' : 'text.secondary' }}>
        {change === null
          ? teacherText('film.set-up-first')
          : first.length > 0
            ? `${first.join(', ')} (${roundText(change.totalMs)})`
            : teacherText('film.nothing-changes')}
      </TableCell>
      <TableCell>
        <Typography sx={{ fontWeight: 650 }}>{block.title || teacherText('untitled')}</Typography>
        {[
          ...[shot.angle, shot.framing],
          ...(shot.performers > 1 ? [teacherText('film.performers', { n: shot.performers })] : []),
          ...(shot.fresh ? [teacherText('film.fresh')] : []),
        ].join(', ')}
      </TableCell>
      <TableCell>{[kit.join(', '), shot.note].filter((text) => text !== '').join(' · ')}</TableCell>
      <TableCell>
        {teacherText('film.all', {
          takesEach,
          time: clockText(durationMs),
          round: roundText(filmingMs),
        })}
      </TableCell>
      <TableCell>
        <Stack direction="row" sx={{ gap: 1, alignItems: 'center' }}>
          <Button size="small" variant="outlined" onClick={() => onFilm(block.id, toFilm.id)}>
            {teacherText('film.film')}
          </Button>
          {progress.filmed.has(toFilm.id) && (
            <Chip
              size="small"
              color="success"
              variant="outlined"
              label={teacherText('film.filmed')}
            />
          )}
          {progress.toRetake.has(toFilm.id) && (
            <Chip size="small" color="error" variant="outlined" label={teacherText('film.again')} />
          )}
        </Stack>
      </TableCell>
    </TableRow>
  );
}

/** What is done most in each block, by its id. */
function useMovements(lesson: Lesson): ReadonlyMap<string, Movement> {
  const schedule = useSchedule();
  return useMemo(
    () =>
      new Map(
        schedule.blocks.map((timed) => [
          timed.block.id,
          portraitOf(lesson, { ...schedule, blocks: [timed] }).movement,
        ]),
      ),
    [lesson, schedule],
  );
}

interface CallSheetViewProps {
  onFilm: (blockId: string, only: ReadonlySet<string> | undefined) => void;
}

const headings = [
  'film.from',
  'film.first',
  'film.shot',
  'film.kit-note',
  'film.takes',
] as const satisfies readonly TeacherWord[];

/** What an order made by hand costs beside the best, and the way back to that. */
function OrderCost({ moreMs }: { moreMs: number }) {
  const dispatch = useAppDispatch();
  const useBest = () =>
    dispatch(edit(teacherText('film.order-filming'), (draft) => void (draft.filming.order = [])));
  const word =
    moreMs > 0
      ? 'film.your-order-costs-more'
      : moreMs < 0
        ? 'film.your-order-changes-less'
        : 'film.your-order-costs-no';
  return (
    <>
      <Typography color={moreMs > 0 ? 'error' : 'text.secondary'} data-testid="order-cost">
        {teacherText(word, { round: roundText(Math.abs(moreMs)) })}
      </Typography>
      <Button size="small" onClick={useBest}>
        {teacherText('film.use-order-fewest-changes')}
      </Button>
    </>
  );
}

/** The order of filming with the fewest changes; carried about by hand, with what that costs. */
export function CallSheetView({ onFilm }: CallSheetViewProps) {
  const { id, lesson } = useOpenLesson();
  const takes = useTakes();
  const dispatch = useAppDispatch();
  const [onlyRetakes, setOnlyRetakes] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const progress = useMemo(() => shotProgress(shotsToFilm(lesson), takes), [lesson, takes]);
  const only = onlyRetakes ? progress.toRetake : undefined;
  const sheet = useMemo(() => callSheet(lesson, only), [lesson, only]);
  const movementOf = useMovements(lesson);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const ids = sheet.lines.map(({ toFilm }) => toFilm.id);
  const drop = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    const whole = only ? callSheet(lesson).lines.map(({ toFilm }) => toFilm.id) : ids;
    const order = arrayMove(
      whole,
      whole.indexOf(String(active.id)),
      whole.indexOf(String(over.id)),
    );
    dispatch(
      edit(teacherText('film.order-filming'), (draft) => void (draft.filming.order = order)),
    );
  };
  const print = async () => {
    setProblem(null);
    const unsaved = await dispatch(saveFirst());
    const url = urlOf(routes.print, { lessonId: id, print: 'call-sheet' });
    setProblem(unsaved ?? (await fetchFile('call-sheet.pdf', url)));
  };
  return (
    <Paper
      variant="outlined"
      sx={{ p: 2 }}
      component="section"
      aria-label={teacherText('film.call-sheet')}
    >
      <Stack
        direction="row"
        useFlexGap
        sx={{ gap: 2, flexWrap: 'wrap', alignItems: 'center', mb: 1 }}
      >
        <Typography sx={{ fontSize: '1.2rem', fontWeight: 650 }} data-testid="filming-time">
          {teacherText('film.about-changes-rests', {
            count: sheet.lines.length,
            round: roundText(sheet.totalMs),
            round2: roundText(sheet.changesMs),
          })}
        </Typography>
        {sheet.byHand && <OrderCost moreMs={sheet.changesMs - sheet.bestChangesMs} />}
        <FormControlLabel
          label={teacherText('film.only-what-filmed-again', { size: progress.toRetake.size })}
          control={<Switch checked={onlyRetakes} onChange={(_event, on) => setOnlyRetakes(on)} />}
        />
        <Button onClick={() => void print()}>{teacherText('film.call-sheet-pdf')}</Button>
      </Stack>
      {problem && <Alert severity="error">{problem}</Alert>}
      {sheet.lines.length === 0 ? (
        <Typography color="text.secondary">
          {onlyRetakes
            ? teacherText('film.nothing-has-filmed-again')
            : teacherText('film.there-nothing-film-yet')}
        </Typography>
      ) : (
        <DndContext
          sensors={sensors}
          collisionDetection={closestCenter}
          onDragEnd={drop}
          accessibility={dragWords(
            (id) =>
              sheet.lines.find(({ toFilm }) => toFilm.id === id)?.toFilm.block.title ||
              teacherText('untitled'),
          )}
        >
          <Table size="small">
            <TableHead>
              <TableRow>
                <TableCell />
                <TableCell />
                {headings.map((word) => (
                  <TableCell key={word}>{teacherText(word)}</TableCell>
                ))}
                <TableCell />
              </TableRow>
            </TableHead>
            <TableBody>
              <SortableContext items={ids} strategy={verticalListSortingStrategy}>
                {sheet.lines.map((line) => (
                  <Line
                    key={line.toFilm.id}
                    line={line}
                    movement={movementOf.get(line.toFilm.block.id) ?? 'other'}
                    takesEach={lesson.filming.takesEach}
                    progress={progress}
                    onFilm={(blockId) => onFilm(blockId, only)}
                  />
                ))}
              </SortableContext>
            </TableBody>
          </Table>
        </DndContext>
      )}
    </Paper>
  );
}
