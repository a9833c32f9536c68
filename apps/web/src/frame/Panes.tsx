import { Box, ButtonBase, useMediaQuery } from '@mui/material';
import { useDeferredValue, useState, type ReactNode } from 'react';
import { Group, Panel, Separator, useDefaultLayout } from 'react-resizable-panels';
import { teacherText } from '@zest/core/words';

/** Windows in which panes are leaves, one at a time. */
export const NARROW = '(max-width: 899px)';

export interface Pane {
  id: string;
  /** What it is called on its leaf. */
  name: string;
  /** Part of the width it has at first, in percent. */
  part: number;
  /** Narrower it is not made, in pixels. */
  leastPx: number;
  /** Stays while what is below it scrolls. */
  heading?: ReactNode;
  content: ReactNode;
  /** Stays below what scrolls. */
  foot?: ReactNode;
  /** With as little room about it as can be. */
  isClose?: boolean;
}

/**
 * A pane, which may be all there is of a bench: its heading stays, the rest scrolls. What it holds
 * is drawn after the pane itself, in slices, so that a long lesson does not hold up the window.
 */
export function OnePane({
  heading,
  content,
  foot,
  name,
  isClose = false,
}: Pick<Pane, 'heading' | 'content' | 'foot' | 'name' | 'isClose'>) {
  const isFilled = useDeferredValue(true, false);
  return (
    <Box
      component="section"
      aria-label={name}
      sx={{ display: 'flex', flexDirection: 'column', height: '100%', minWidth: 0 }}
    >
      {heading && isFilled && (
        <Box sx={{ flex: 'none', px: 1.5, pt: isClose ? 0.25 : 1.5 }}>{heading}</Box>
      )}
      <Box
        className="pane-scroll"
        // A pane without a field in it is scrolled by its own focus.
        tabIndex={0}
        sx={{
          flex: 1,
          minHeight: 0,
          overflow: 'auto',
          p: 1.5,
          ...(isClose && { py: 0.5 }),
          '&:focus-visible': { outline: '2px solid', outlineOffset: -2 },
        }}
      >
        {isFilled && content}
      </Box>
      {foot && isFilled && <Box sx={{ flex: 'none' }}>{foot}</Box>}
    </Box>
  );
}

interface PanesProps {
  id: string;
  panes: readonly Pane[];
  /** What lies below all of them; on a phone below the first. */
  below?: Pick<Pane, 'name' | 'heading' | 'content' | 'part' | 'leastPx' | 'isClose'>;
  /** Where the bench itself turns leaves: the one to show, and how another is asked for. */
  leaf?: { shown: string; onTurn: (id: string) => void };
}

/** The edge between two panes, which is dragged. */
const edge = {
  borderColor: 'divider',
  '&[data-separator="hover"], &[data-separator="active"], &:focus-visible': {
    bgcolor: 'primary.main',
    outline: 'none',
  },
};

interface SplitProps {
  id: string;
  orientation: 'horizontal' | 'vertical';
  children: ReactNode;
}

/** Panels with edges between them, as they were left. */
function Split({ id, orientation, children }: SplitProps) {
  const { defaultLayout, onLayoutChanged } = useDefaultLayout({
    id,
    onlySaveAfterUserInteractions: true,
  });
  return (
    <Group
      orientation={orientation}
      id={id}
      {...(defaultLayout && { defaultLayout })}
      onLayoutChanged={onLayoutChanged}
    >
      {children}
    </Group>
  );
}

function Beside({ id, panes }: PanesProps) {
  return (
    <Split orientation="horizontal" id={`panes-${id}`}>
      {panes.flatMap((pane, i) => [
        ...(i === 0
          ? []
          : [
              <Box
                component={Separator}
                key={`${pane.id}-edge`}
                aria-label={teacherText('frame.edge', { name: pane.name })}
                sx={{ width: 9, borderLeft: 1, ...edge }}
              />,
            ]),
        <Panel
          key={pane.id}
          id={pane.id}
          defaultSize={`${pane.part}%`}
          minSize={pane.leastPx}
          style={{ overflow: 'hidden' }}
        >
          <OnePane {...pane} />
        </Panel>,
      ])}
    </Split>
  );
}

/** Panes side by side, and one below them all that is dragged higher and remembered. */
function Side({ below, ...panes }: PanesProps) {
  if (!below) return <Beside {...panes} />;
  const id = `panes-${panes.id}-below`;
  const { name, part, leastPx } = below;
  return (
    <Split orientation="vertical" id={id}>
      <Panel id={`${id}-above`} minSize={200} style={{ overflow: 'hidden' }}>
        <Beside {...panes} />
      </Panel>
      <Box
        component={Separator}
        aria-label={teacherText('frame.edge', { name })}
        sx={{ height: 9, borderTop: 1, ...edge }}
      />
      <Panel
        id={`${id}-under`}
        defaultSize={`${part}%`}
        minSize={leastPx}
        style={{ overflow: 'hidden' }}
      >
        <OnePane {...below} />
      </Panel>
    </Split>
  );
}

/** One pane at a time; what is not shown stays as it is. */
function Leaves({ panes, leaf, below }: PanesProps) {
  const [turned, setTurned] = useState(panes[0]?.id);
  const [shown, setShown] = leaf ? [leaf.shown, leaf.onTurn] : [turned, setTurned];
  const open = panes.some(({ id }) => id === shown) ? shown : panes[0]?.id;
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', height: '100%' }}>
      {panes.map((pane, i) => (
        <Box
          key={pane.id}
          sx={{
            flex: 1,
            minHeight: 0,
            display: pane.id === open ? 'flex' : 'none',
            flexDirection: 'column',
          }}
        >
          <Box sx={{ flex: 1, minHeight: 0 }}>
            <OnePane {...pane} />
          </Box>
          {i === 0 && below && (
            <Box sx={{ flex: 1, minHeight: 0, borderTop: 1, borderColor: 'divider' }}>
              <OnePane {...below} />
            </Box>
          )}
        </Box>
      ))}
      {panes.length > 1 && (
        <Box
          component="nav"
          aria-label={teacherText('frame.leaves')}
          sx={{ flex: 'none', display: 'flex', borderTop: 1, borderColor: 'divider' }}
        >
          {panes.map(({ id, name }) => (
            <ButtonBase
              key={id}
              aria-pressed={id === open}
              onClick={() => setShown(id)}
              sx={{
                flex: 1,
                minHeight: 48,
                fontFamily: 'inherit',
                fontSize: '0.95rem',
                fontWeight: id === open ? 750 : 500,
                borderTop: 3,
                borderColor: id === open ? 'primary.main' : 'transparent',
              }}
            >
              {name}
            </ButtonBase>
          ))}
        </Box>
      )}
    </Box>
  );
}

/** Panes side by side, as wide as they were left; on a phone leaves to turn at the thumb. */
export function Panes(props: PanesProps) {
  const isNarrow = useMediaQuery(NARROW);
  return isNarrow ? <Leaves {...props} /> : <Side {...props} />;
}
