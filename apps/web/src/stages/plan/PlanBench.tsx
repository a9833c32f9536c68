import { Box } from '@mui/material';
import { ledgersOf } from '@zest/core/ledger';
import { blockKinds, blocksOf, kindName } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { memo, useEffect, useMemo, useState, type CSSProperties } from 'react';
import { useCommands } from '../../app/commands.ts';
import { useChosenBlock, useOpenLesson, useSchedule } from '../../app/use-lesson.ts';
import { Panes } from '../../frame/Panes.tsx';
import { BlockStage } from '../../stage/BlockStage.tsx';
import { runningColours } from '../../app/theme.ts';
import { AddingContext, useAdding, useMakeAdding } from './adding.ts';
import { useBlockActions } from './block-actions.ts';
import { BlockPane } from './block/BlockPane.tsx';
import { FigureFocus, SetFigureFocus, type FocusedFigure } from './block/figure-focus.ts';
import { FigureBar } from './block/FigureBar.tsx';
import { Drawer, DrawerHead } from './meters/Drawer.tsx';
import { Meters } from './meters/Meters.tsx';
import { SelectionContext, useMakeSelection, useSelection } from './selection.ts';
import { AddPalette } from './sheet/AddPalette.tsx';
import { LessonSheet, SheetHeading } from './sheet/LessonSheet.tsx';
import { useSplit } from './use-split.ts';
import { PlanViewContext, useMakePlanView, usePlanView } from './view.ts';

/** What the Plan bench can do, by name. */
function usePlanCommands(): void {
  const { lesson } = useOpenLesson();
  const { block } = useChosenBlock();
  const { add, addSection } = useAdding();
  const { set } = useSelection();
  const actions = useBlockActions();
  const split = useSplit();
  useCommands(() => {
    const group = teacherText('plan.plan');
    const adding = blockKinds.map((kind) => ({
      group,
      name: teacherText('plan.add-block', { what: kindName(kind).toLowerCase() }),
      run: () => add(kind),
    }));
    const some = [
      {
        group,
        name: teacherText('plan.copy-chosen-blocks'),
        keys: 'Ctrl C',
        run: () => void actions.copy(),
      },
      { group, name: teacherText('plan.double-chosen-blocks'), run: actions.duplicate },
      {
        group,
        name: teacherText('plan.remove-chosen-blocks'),
        keys: 'Delete',
        run: () => actions.remove(),
      },
      {
        group,
        name: teacherText('plan.move-chosen-blocks-earlier'),
        keys: 'Alt ↑',
        run: () => actions.move(-1),
      },
      {
        group,
        name: teacherText('plan.move-chosen-blocks-later'),
        keys: 'Alt ↓',
        run: () => actions.move(1),
      },
    ];
    return [
      ...adding,
      {
        group,
        name: teacherText('plan.add-section'),
        run: () => void addSection(),
      },
      ...(actions.count > 0 ? some : []),
      {
        group,
        name: teacherText('plan.put-copied-blocks'),
        keys: 'Ctrl V',
        run: () => actions.paste(),
      },
      {
        group,
        name: teacherText('plan.choose-all-blocks'),
        run: () => set(blocksOf(lesson).map(({ id }) => id)),
      },
      ...(block
        ? [
            {
              group,
              name: teacherText('plan.split-lesson-before', { title: block.title }),
              run: () => void split(block.id),
            },
          ]
        : []),
    ];
  });
}

const SheetFoot = memo(AddPalette);
const Middle = memo(BlockStage);
const Block = memo(BlockPane);
const BenchHere = memo(Bench);

function Bench() {
  usePlanCommands();
  const { lesson } = useOpenLesson();
  const schedule = useSchedule();
  // Reckoned once for the meters and what opens from them.
  const ledgers = useMemo(() => ledgersOf(lesson, schedule), [lesson, schedule]);
  const { leaf, turn, drawer } = usePlanView();
  useEffect(() => {
    // Hidden, the run sheet forgets where it was.
    if (drawer === null)
      document.querySelector('.sheet-line.is-open')?.scrollIntoView({ block: 'nearest' });
  }, [drawer]);
  const isHidden = drawer !== null;
  return (
    <Box
      style={runningColours as CSSProperties}
      sx={{ display: 'flex', flexDirection: 'column', height: '100%' }}
    >
      <Box sx={{ flex: 1, minHeight: 0 }}>
        <Panes
          id="plan-bench"
          leaf={{ shown: leaf, onTurn: turn }}
          panes={[
            {
              ...{ id: 'blocks', name: teacherText('pane.blocks'), part: 36, leastPx: 330 },
              heading: drawer ? <DrawerHead id={drawer} /> : <SheetHeading />,
              content: (
                <>
                  <div hidden={isHidden}>
                    <LessonSheet schedule={schedule} />
                  </div>
                  {drawer && (
                    <Drawer id={drawer} lesson={lesson} schedule={schedule} ledgers={ledgers} />
                  )}
                </>
              ),
              foot: (
                <div hidden={isHidden}>
                  <SheetFoot />
                </div>
              ),
            },
            {
              ...{ id: 'stage', name: teacherText('pane.picture'), part: 32, leastPx: 280 },
              content: <Middle />,
            },
            {
              ...{ id: 'block', name: teacherText('pane.block'), part: 32, leastPx: 300 },
              content: <Block />,
              foot: <FigureBar />,
            },
          ]}
        />
      </Box>
      <Meters lesson={lesson} schedule={schedule} ledgers={ledgers} />
    </Box>
  );
}

/** What is done on the bench, around all of it. */
function Doing() {
  const selection = useMakeSelection();
  const adding = useMakeAdding();
  const [focused, setFocused] = useState<FocusedFigure | null>(null);
  return (
    <SelectionContext value={selection}>
      <AddingContext value={adding}>
        <SetFigureFocus value={setFocused}>
          <FigureFocus value={focused}>
            <BenchHere />
          </FigureFocus>
        </SetFigureFocus>
      </AddingContext>
    </SelectionContext>
  );
}

/** The lesson as a run sheet, the chosen block as students see it, and the block in a sentence. */
export function PlanBench() {
  return (
    <PlanViewContext value={useMakePlanView()}>
      <Doing />
    </PlanViewContext>
  );
}
