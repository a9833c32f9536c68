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
import { clockText, lengthText } from '@zest/core/time';
import { useMemo, useState } from 'react';
import { routes, urlOf } from '@zest/contract';
import { saveFirst } from '../../app/autosave.ts';
import { edit } from '../../app/lesson-slice.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useOpenLesson, useTakes } from '../../app/use-lesson.ts';
import { fetchFile } from '../../ui/save-file.ts';
import { shotProgress, type ShotProgress } from './retakes.ts';

const roundText = (ms: number) => lengthText(Math.round(ms / 1000) * 1000);

interface LineProps {
  line: CallSheetLine;
  takesEach: number;
  progress: ShotProgress;
  onFilm: (blockId: string, shotId: string) => void;
}

function Line({
  line: { toFilm, change, startMs, filmingMs },
  takesEach,
  progress,
  onFilm,
}: LineProps) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({
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
          aria-label={`Carry ${block.title}, ${shot.angle}`}
          {...attributes}
          {...listeners}
        >
          <DragIndicatorIcon fontSize="small" />
        </IconButton>
      </TableCell>
      <TableCell sx={{ fontVariantNumeric: 'tabular-nums' }}>{clockText(startMs)}</TableCell>
      <TableCell sx={{ color: first.length > 0 ? 'primary.main' : 'text.secondary' }}>
        {change === null
          ? 'set up'
          : first.length > 0
            ? `${first.join(', ')} (${roundText(change.totalMs)})`
            : 'nothing changes'}
      </TableCell>
      <TableCell>
        <Typography sx={{ fontWeight: 650 }}>{block.title || 'Untitled'}</Typography>
        {shot.angle}, {shot.framing}
        {shot.performers > 1 && `, ${shot.performers} performers`}
        {shot.fresh && ' · fresh'}
      </TableCell>
      <TableCell>{[kit.join(', '), shot.note].filter((text) => text !== '').join(' · ')}</TableCell>
      <TableCell>
        {takesEach} × {clockText(durationMs)}, {roundText(filmingMs)} in all
      </TableCell>
      <TableCell>
        <Stack direction="row" sx={{ gap: 1, alignItems: 'center' }}>
          <Button size="small" variant="outlined" onClick={() => onFilm(block.id, toFilm.id)}>
            Film
          </Button>
          {progress.filmed.has(toFilm.id) && (
            <Chip size="small" color="success" variant="outlined" label="filmed" />
          )}
          {progress.toRetake.has(toFilm.id) && (
            <Chip size="small" color="error" variant="outlined" label="again" />
          )}
        </Stack>
      </TableCell>
    </TableRow>
  );
}

interface CallSheetViewProps {
  onFilm: (blockId: string, only: ReadonlySet<string> | undefined) => void;
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
    dispatch(edit('Order of filming', (draft) => void (draft.filming.order = order)));
  };
  const more = sheet.changesMs - sheet.bestChangesMs;
  return (
    <Paper variant="outlined" sx={{ p: 2 }} component="section" aria-label="Call sheet">
      <Stack
        direction="row"
        useFlexGap
        sx={{ gap: 2, flexWrap: 'wrap', alignItems: 'center', mb: 1 }}
      >
        <Typography sx={{ fontSize: '1.2rem', fontWeight: 650 }} data-testid="filming-time">
          {sheet.lines.length} {sheet.lines.length === 1 ? 'shot' : 'shots'}, about{' '}
          {roundText(sheet.totalMs)}; {roundText(sheet.changesMs)} of it changes and rests
        </Typography>
        {sheet.byHand && (
          <>
            <Typography color={more > 0 ? 'error' : 'text.secondary'} data-testid="order-cost">
              {more > 0
                ? `Your order costs ${roundText(more)} more than the best.`
                : more < 0
                  ? `Your order changes less, by ${roundText(-more)}, but films something tired that should be fresh.`
                  : 'Your order costs no more than the best.'}
            </Typography>
            <Button
              size="small"
              onClick={() =>
                dispatch(edit('Order of filming', (draft) => void (draft.filming.order = [])))
              }
            >
              Use the order with the fewest changes
            </Button>
          </>
        )}
        <FormControlLabel
          label={`Only what is to be filmed again (${progress.toRetake.size})`}
          control={<Switch checked={onlyRetakes} onChange={(_event, on) => setOnlyRetakes(on)} />}
        />
        <Button
          onClick={() => {
            setProblem(null);
            void dispatch(saveFirst()).then(async (unsaved) =>
              setProblem(
                unsaved ??
                  (await fetchFile(
                    'call-sheet.pdf',
                    urlOf(routes.print, { lessonId: id, print: 'call-sheet' }),
                  )),
              ),
            );
          }}
        >
          Call sheet (PDF)
        </Button>
      </Stack>
      {problem && <Alert severity="error">{problem}</Alert>}
      {sheet.lines.length === 0 ? (
        <Typography color="text.secondary">
          {onlyRetakes
            ? 'Nothing has to be filmed again.'
            : 'There is nothing to film yet. Add a block on the Plan bench first.'}
        </Typography>
      ) : (
        <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
          <Table size="small">
            <TableHead>
              <TableRow>
                <TableCell />
                {['From', 'First', 'Shot', 'Kit and note', 'Takes', ''].map((name, i) => (
                  <TableCell key={i}>{name}</TableCell>
                ))}
              </TableRow>
            </TableHead>
            <TableBody>
              <SortableContext items={ids} strategy={verticalListSortingStrategy}>
                {sheet.lines.map((line) => (
                  <Line
                    key={line.toFilm.id}
                    line={line}
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
