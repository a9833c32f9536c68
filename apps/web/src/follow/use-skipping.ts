import { useState } from 'react';
import type { FollowBlock } from '@zest/contract';

interface Asked {
  id: string;
  title: string;
  wasPlaying: boolean;
}

/**
 * A block is to be left out: why is asked first, and meanwhile the video stands. `toggle` stops it
 * and lets it run.
 */
export function useSkipping(toggle: () => void) {
  const [asked, setAsked] = useState<Asked | null>(null);
  return {
    /** The block that is asked about. */
    asked,
    ask: ({ id, title }: Pick<FollowBlock, 'id' | 'title'>, wasPlaying: boolean) => {
      setAsked({ id, title, wasPlaying });
      if (wasPlaying) toggle();
    },
    keepOn: () => {
      if (asked?.wasPlaying) toggle();
      setAsked(null);
    },
    end: () => setAsked(null),
  };
}
