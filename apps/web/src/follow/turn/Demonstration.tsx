import { clipOfBlock, type Assembly } from '@zest/core/assembly';
import { useCallback, useMemo, useState } from 'react';
import { Filmed } from '../../stage/Filmed.tsx';

/** How fast it is shown when a student wants it slowly. */
const SLOWLY = 0.5;

interface DemonstrationProps {
  assembly: Assembly;
  blockId: string;
  takeUrl: (takeId: string) => string;
  isSlow: boolean;
  /** It stands in the middle of the movement. */
  isStill: boolean;
}

/** What is practised, shown over and over without a sound; nothing where it is not filmed. */
export function Demonstration({ assembly, blockId, takeUrl, isSlow, isStill }: DemonstrationProps) {
  const cut = useMemo(() => clipOfBlock(assembly, blockId), [assembly, blockId]);
  const [since] = useState(() => performance.now());
  const speed = isSlow ? SLOWLY : 1;
  const lengthMs = cut?.durationMs ?? 0;
  const momentMs = useCallback(
    () => (isStill ? lengthMs / 2 : ((performance.now() - since) * speed) % Math.max(1, lengthMs)),
    [isStill, lengthMs, since, speed],
  );
  if (!cut?.segments.some(({ source }) => source.kind === 'take')) return null;
  return (
    <div className="turn-demo" aria-hidden="true">
      <Filmed takeUrl={takeUrl} cut={cut} momentMs={momentMs} isPlaying={!isStill} speed={speed} />
    </div>
  );
}
