import { Alert, FormControlLabel, Stack, Switch } from '@mui/material';
import {
  exportFormats,
  exportHands,
  exportShapes,
  exportSizes,
  type ExportOrder,
} from '@zest/contract';
import { allCues, blocksOf, type Lesson } from '@zest/core/lesson';
import { fixedSides } from '@zest/core/script';
import { teacherText } from '@zest/core/words';
import { useMaterials } from '../../../app/use-lesson.ts';
import { ChoiceField } from '../../../ui/fields.tsx';

/** No block has such an id. */
const ALL = '*';
const handWords = {
  'as filmed': 'files.hand-as-filmed',
  'other hand': 'files.hand-other',
} as const;

interface OrderProps {
  lesson: Lesson;
  order: ExportOrder;
}

const titlesOf = (blocks: readonly { title: string }[]) =>
  blocks.map(({ title }) => title || teacherText('untitled')).join(', ');

/** What an export of the lesson as it stands will lack. */
export function ExportWarnings({
  lesson,
  order,
  ready,
}: OrderProps & { ready: ReadonlySet<string> }) {
  const asCards = blocksOf(lesson).filter(
    (block) => !block.footage || !ready.has(block.footage.takeId),
  );
  const fixed =
    order.hand === 'other hand'
      ? blocksOf(lesson).filter((block) =>
          [block.script, ...allCues(block).map(({ text }) => text)].some(
            (text) => fixedSides(text).length > 0,
          ),
        )
      : [];
  const { music } = lesson.finish.sound;
  const isMusicReady = useMaterials().some(
    (take) => take.id === music?.takeId && take.state === 'ready',
  );
  return (
    <>
      {asCards.length > 0 && (
        <Alert severity="info">
          {teacherText('files.as-cards', { titles: titlesOf(asCards) })}
        </Alert>
      )}
      {fixed.length > 0 && (
        <Alert severity="warning">
          {teacherText('files.fixed-sides', { titles: titlesOf(fixed) })}
        </Alert>
      )}
      {music && !isMusicReady && <Alert severity="warning">{teacherText('files.no-music')}</Alert>}
    </>
  );
}

/** What is to be exported, and as what. */
export function OrderFields({
  lesson,
  order,
  onOrder,
}: OrderProps & { onOrder: (order: ExportOrder) => void }) {
  const set = (change: Partial<ExportOrder>) => onOrder({ ...order, ...change });
  return (
    <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 1.5, alignItems: 'center' }}>
      <ChoiceField
        label={teacherText('files.picture')}
        value={order.size}
        choices={exportSizes.map((one) => [one, teacherText(`files.size-${one}`)] as const)}
        onChange={(size) => set({ size })}
        sx={{ width: 220 }}
      />
      <ChoiceField
        label={teacherText('files.kind')}
        value={order.format}
        choices={exportFormats.map((one) => [one, teacherText(`files.kind-${one}`)] as const)}
        onChange={(format) => set({ format })}
        sx={{ width: 240 }}
      />
      <ChoiceField
        label={teacherText('files.shape')}
        value={order.shape}
        choices={exportShapes.map((one) => [one, teacherText(`files.shape-${one}`)] as const)}
        onChange={(shape) => set({ shape })}
        sx={{ width: 240 }}
      />
      <ChoiceField
        label={teacherText('files.what')}
        value={order.blockId ?? ALL}
        choices={[
          [ALL, teacherText('files.what-all')],
          ...blocksOf(lesson).map(
            (block) =>
              [block.id, teacherText('files.what-one', { title: titlesOf([block]) })] as const,
          ),
        ]}
        onChange={(blockId) => set({ blockId: blockId === ALL ? null : blockId })}
        sx={{ width: 260 }}
      />
      {lesson.second && (
        <ChoiceField
          label={teacherText('files.language')}
          value={order.language}
          choices={[
            ['first', lesson.settings.language],
            ['second', lesson.second.language],
          ]}
          onChange={(language) => set({ language })}
          sx={{ width: 140 }}
        />
      )}
      <ChoiceField
        label={teacherText('files.hand')}
        value={order.hand}
        choices={exportHands.map((one) => [one, teacherText(handWords[one])] as const)}
        onChange={(hand) => set({ hand })}
        sx={{ width: 260 }}
      />
      <FormControlLabel
        label={teacherText('files.overlays')}
        control={
          <Switch checked={order.overlays} onChange={(_event, overlays) => set({ overlays })} />
        }
      />
      <FormControlLabel
        label={teacherText('files.burned')}
        control={
          <Switch checked={order.captions} onChange={(_event, captions) => set({ captions })} />
        }
      />
    </Stack>
  );
}
