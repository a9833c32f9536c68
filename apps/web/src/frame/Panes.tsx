import { Box, ButtonBase, useMediaQuery } from '@mui/material';
import { useState, type ReactNode } from 'react';
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
}

/** A pane, which may be all there is of a bench: its heading stays, the rest scrolls. */
export function OnePane({
  heading,
  content,
  foot,
  name,
}: Pick<Pane, 'heading' | 'content' | 'foot' | 'name'>) {
  return (
    <Box
      component="section"
      aria-label={name}
      sx={{ display: 'flex', flexDirection: 'column', height: '100%', minWidth: 0 }}
    >
      {heading && <Box sx={{ flex: 'none', px: 1.5, pt: 1.5 }}>{heading}</Box>}
      <Box
        className="pane-scroll"
        // A pane without a field in it is scrolled by its own focus.
        tabIndex={0}
        sx={{
          flex: 1,
          minHeight: 0,
          overflow: 'auto',
          p: 1.5,
          '&:focus-visible': { outline: '2px solid', outlineOffset: -2 },
        }}
      >
        {content}
      </Box>
      {foot && <Box sx={{ flex: 'none' }}>{foot}</Box>}
    </Box>
  );
}

interface PanesProps {
  id: string;
  panes: readonly Pane[];
  /** Where the bench itself turns leaves: the one to show, and how another is asked for. */
  leaf?: { shown: string; onTurn: (id: string) => void };
}

function Side({ id, panes }: PanesProps) {
  const { defaultLayout, onLayoutChanged } = useDefaultLayout({
    id: `panes-${id}`,
    onlySaveAfterUserInteractions: true,
  });
  return (
    <Group
      orientation="horizontal"
      id={`panes-${id}`}
      {...(defaultLayout && { defaultLayout })}
      onLayoutChanged={onLayoutChanged}
    >
      {panes.flatMap((pane, i) => [
        ...(i === 0
          ? []
          : [
              <Box
                component={Separator}
                key={`${pane.id}-edge`}
                aria-label={teacherText('frame.edge', { name: pane.name })}
                sx={{
                  width: 9,
                  borderLeft: 1,
                  borderColor: 'divider',
                  '&[data-separator="hover"], &[data-separator="active"], &:focus-visible': {
                    bgcolor: 'primary.main',
                    outline: 'none',
                  },
                }}
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
    </Group>
  );
}

/** One pane at a time; what is not shown stays as it is. */
function Leaves({ panes, leaf }: PanesProps) {
  const [turned, setTurned] = useState(panes[0]?.id);
  const [shown, setShown] = leaf ? [leaf.shown, leaf.onTurn] : [turned, setTurned];
  const open = panes.some(({ id }) => id === shown) ? shown : panes[0]?.id;
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', height: '100%' }}>
      {panes.map((pane) => (
        <Box
          key={pane.id}
          sx={{ flex: 1, minHeight: 0, display: pane.id === open ? 'block' : 'none' }}
        >
          <OnePane {...pane} />
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
