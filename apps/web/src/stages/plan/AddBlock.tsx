import { Button, ListItemText, Menu, MenuItem, Typography } from '@mui/material';
import { blockKinds, kindNames, LIMITS, type BlockKind } from '@zest/core/lesson';
import { useState } from 'react';
import { kindWords } from './kinds.ts';

/** The kinds most lessons are made of stand at hand; the others are a click away. */
const AT_HAND: readonly BlockKind[] = ['talk', 'intervals', 'reps'];

export function AddBlock({ isFull, onAdd }: { isFull: boolean; onAdd: (kind: BlockKind) => void }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const choose = (kind: BlockKind) => {
    setAnchor(null);
    onAdd(kind);
  };
  if (isFull)
    return (
      <Typography color="text.secondary">
        A section holds {LIMITS.blocksPerSection} blocks. Add a section for more.
      </Typography>
    );
  return (
    <>
      {AT_HAND.map((kind) => (
        <Button key={kind} size="small" onClick={() => onAdd(kind)}>
          + {kindNames[kind]}
        </Button>
      ))}
      <Button
        size="small"
        aria-haspopup="menu"
        aria-expanded={anchor !== null}
        onClick={(event) => setAnchor(event.currentTarget)}
      >
        + Other kinds
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        {blockKinds
          .filter((kind) => !AT_HAND.includes(kind))
          .map((kind) => (
            <MenuItem key={kind} onClick={() => choose(kind)}>
              <ListItemText primary={kindNames[kind]} secondary={kindWords[kind]} />
            </MenuItem>
          ))}
      </Menu>
    </>
  );
}
