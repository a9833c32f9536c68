import { Button, Paper, Stack, Typography } from '@mui/material';
import {
  addSection,
  blockKinds,
  blocksOf,
  kindNames,
  makeBlock,
  makeSection,
  insertAfter,
} from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { memo } from 'react';
import { useCommands } from '../../app/commands.ts';
import { makeId } from '../../app/ids.ts';
import { edit } from '../../app/lesson-slice.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useChosenBlock, useOpenLesson, useSchedule } from '../../app/use-lesson.ts';
import { Panes } from '../../frame/Panes.tsx';
import { BlockStage } from '../../stage/BlockStage.tsx';
import { useLatest } from '../../ui/use-latest.ts';
import { useBlockActions } from './block-actions.ts';
import { useBlockKeys } from './block-keys.ts';
import { Carrying } from './Carrying.tsx';
import { Ledgers } from './ledger/Ledgers.tsx';
import { LessonFacts } from './LessonFacts.tsx';
import { RunSheet } from './RunSheet.tsx';
import { SectionPlan } from './SectionPlan.tsx';
import { SelectionContext, useMakeSelection, useSelection } from './selection.ts';
import { SelectionBar } from './SelectionBar.tsx';
import { SlotGauge } from './SlotGauge.tsx';
import { useSplit } from './use-split.ts';

/** What the Plan bench can do, by name. */
function usePlanCommands(): void {
  const { lesson } = useOpenLesson();
  const { block, choose } = useChosenBlock();
  const { set } = useSelection();
  const actions = useBlockActions();
  const dispatch = useAppDispatch();
  const split = useSplit();
  useCommands(() => {
    const group = 'Plan';
    const adding = blockKinds.map((kind) => ({
      group,
      name: `Add a block: ${kindNames[kind].toLowerCase()}`,
      run: () => {
        const made = makeBlock(kind, makeId, lesson.settings.language);
        dispatch(edit(`Add ${kindNames[kind].toLowerCase()}`, insertAfter(block?.id, [made])));
        choose(made.id);
      },
    }));
    const some = [
      { group, name: 'Copy the chosen blocks', keys: 'Ctrl C', run: () => void actions.copy() },
      { group, name: 'Double the chosen blocks', run: actions.duplicate },
      { group, name: 'Remove the chosen blocks', keys: 'Delete', run: () => actions.remove() },
      { group, name: 'Move the chosen blocks earlier', keys: 'Alt ↑', run: () => actions.move(-1) },
      { group, name: 'Move the chosen blocks later', keys: 'Alt ↓', run: () => actions.move(1) },
    ];
    return [
      ...(lesson.sections.length > 0 ? adding : []),
      {
        group,
        name: 'Add a section',
        run: () =>
          void dispatch(edit('Add a section', addSection(makeSection('New section', makeId)))),
      },
      ...(actions.count > 0 ? some : []),
      { group, name: 'Put copied blocks in', keys: 'Ctrl V', run: () => actions.paste() },
      { group, name: 'Choose all blocks', run: () => set(blocksOf(lesson).map(({ id }) => id)) },
      ...(block
        ? [
            {
              group,
              name: `Split the lesson before “${block.title}”`,
              run: () => void split(block.id),
            },
          ]
        : []),
    ];
  });
}

/** The blocks of the lesson, section by section. */
function Sections() {
  const schedule = useSchedule();
  const dispatch = useAppDispatch();
  const onKeyDown = useBlockKeys();
  usePlanCommands();
  const { block: chosen, choose } = useChosenBlock();
  const open = useLatest(choose);
  return (
    <Stack spacing={2} onKeyDown={onKeyDown}>
      <LessonFacts />
      {schedule.sections.length === 0 && (
        <Typography>A lesson is made of sections. Add the first one below.</Typography>
      )}
      <Carrying>
        {schedule.sections.map((section, i) => (
          <SectionPlan
            key={section.section.id}
            planned={section}
            first={i === 0}
            last={i === schedule.sections.length - 1}
            openId={
              section.blocks.some(({ block }) => block.id === chosen?.id)
                ? (chosen?.id ?? null)
                : null
            }
            onOpen={open}
          />
        ))}
      </Carrying>
      <Button
        variant="outlined"
        sx={{ alignSelf: 'start' }}
        onClick={() =>
          dispatch(edit('Add a section', addSection(makeSection('New section', makeId))))
        }
      >
        Add a section
      </Button>
      <SelectionBar />
    </Stack>
  );
}

const SideLedgers = memo(Ledgers);
const SideRunSheet = memo(RunSheet);
const SideGauge = memo(SlotGauge);

/** The lesson as a column of blocks against a clock rail; beside it what it adds up to. */
export function PlanBench() {
  const { lesson } = useOpenLesson();
  const schedule = useSchedule();
  const selection = useMakeSelection();
  return (
    <SelectionContext.Provider value={selection}>
      <Panes
        id="plan"
        panes={[
          {
            ...{ id: 'blocks', name: teacherText('pane.blocks'), part: 68, leastPx: 520 },
            content: <Sections />,
          },
          {
            ...{ id: 'sums', name: teacherText('pane.sums'), part: 32, leastPx: 320 },
            content: (
              <Stack spacing={2}>
                <BlockStage />
                <Paper variant="outlined" sx={{ p: 2 }}>
                  <SideGauge schedule={schedule} />
                </Paper>
                <SideLedgers lesson={lesson} schedule={schedule} />
                <Paper variant="outlined" sx={{ p: 2 }}>
                  <SideRunSheet schedule={schedule} />
                </Paper>
              </Stack>
            ),
          },
        ]}
      />
    </SelectionContext.Provider>
  );
}
