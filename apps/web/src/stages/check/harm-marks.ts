import BadgeIcon from '@mui/icons-material/BadgeOutlined';
import LostIcon from '@mui/icons-material/ExploreOffOutlined';
import HurtIcon from '@mui/icons-material/HealingOutlined';
import UnheardIcon from '@mui/icons-material/HearingDisabledOutlined';
import LateIcon from '@mui/icons-material/TimerOffOutlined';
import UnseenIcon from '@mui/icons-material/VisibilityOffOutlined';
import type { Harm } from '@zest/core/checks';

/** What a student would suffer, as a picture. */
export const harmMarks: Record<Harm, typeof BadgeIcon> = {
  'gets hurt': HurtIcon,
  'gets lost': LostIcon,
  'cannot see it': UnseenIcon,
  'cannot hear it or read along': UnheardIcon,
  'runs out of time': LateIcon,
  'is named': BadgeIcon,
};
