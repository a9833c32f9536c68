import { IconButton, Menu, MenuItem, type IconButtonProps } from '@mui/material';
import MoreVertIcon from '@mui/icons-material/MoreVert';
import { useState } from 'react';
import { Link } from 'react-router';

/** Something of a menu: another page, or what is done once the menu is closed. */
export type MenuEntry = { name: string } & ({ to: string } | { run: () => void });

interface MenuButtonProps extends Pick<IconButtonProps, 'size' | 'sx'> {
  label: string;
  entries: readonly MenuEntry[];
}

/** A menu behind three dots. */
export function MenuButton({ label, entries, ...button }: MenuButtonProps) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const close = () => setAnchor(null);
  return (
    <>
      <IconButton
        {...button}
        aria-label={label}
        aria-haspopup="menu"
        onClick={(event) => setAnchor(event.currentTarget)}
      >
        <MoreVertIcon />
      </IconButton>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={close}>
        {entries.map((entry) =>
          'to' in entry ? (
            <MenuItem key={entry.name} component={Link} to={entry.to} onClick={close}>
              {entry.name}
            </MenuItem>
          ) : (
            <MenuItem
              key={entry.name}
              onClick={() => {
                close();
                entry.run();
              }}
            >
              {entry.name}
            </MenuItem>
          ),
        )}
      </Menu>
    </>
  );
}
