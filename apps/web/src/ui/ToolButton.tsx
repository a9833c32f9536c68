import { IconButton, Tooltip } from '@mui/material';
import type { SvgIconComponent } from '@mui/icons-material';

interface ToolButtonProps {
  words: string;
  Icon: SvgIconComponent;
  onClick: () => void;
  isMain?: boolean;
  size?: 'small' | 'medium';
}

/** A button that is a picture; its words are heard, and read when pointed at. */
export function ToolButton({ words, Icon, onClick, isMain = false, size }: ToolButtonProps) {
  return (
    <Tooltip title={words}>
      <IconButton
        aria-label={words}
        onClick={onClick}
        color={isMain ? 'primary' : 'default'}
        {...(size && { size })}
      >
        <Icon />
      </IconButton>
    </Tooltip>
  );
}
