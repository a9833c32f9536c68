import { byCause, causeOf, checkLesson, type Cause, type Finding } from '@zest/core/checks';
import type { Assembly } from '@zest/core/assembly';
import type { Lesson } from '@zest/core/lesson';
import { useEffect, useMemo, useState } from 'react';
import { makeId } from '../../app/ids.ts';
import { useAssembly, useChosenBlock, useOpenLesson, useReadyTakes } from '../../app/use-lesson.ts';
import { sayChecked } from '../../frame/checked.ts';
import { useTextMeasure } from '../../ui/use-text-measure.ts';

export interface Checked {
  lesson: Lesson;
  cut: Assembly;
  /** What is open, by its cause, the worst harm first. */
  causes: readonly Cause[];
  ignored: readonly Finding[];
  /** The finding that is looked at, and its cause; null when nothing is open. */
  at: { cause: Cause; finding: Finding } | null;
  choose: (key: string) => void;
  /** To the finding after or before. */
  step: (by: -1 | 1) => void;
}

/** Looks for what is not as it should be, anew with every change; null until it can. */
export function useCheck(): Checked | null {
  const { id, lesson } = useOpenLesson();
  const cut = useAssembly();
  const takes = useReadyTakes();
  const measure = useTextMeasure();
  const { choose: chooseBlock } = useChosenBlock();
  const [chosen, setChosen] = useState({ key: '', place: 0 });
  const found = useMemo(() => {
    if (!measure) return null;
    const findings = checkLesson({ lesson, cut, takes, makeId, measure });
    return {
      causes: byCause(findings.filter(({ waived }) => waived === null)),
      ignored: findings.filter(({ waived }) => waived !== null),
    };
  }, [lesson, cut, takes, measure]);
  useEffect(() => {
    if (found)
      sayChecked(
        id,
        found.causes.map(({ key }) => key),
        found.ignored.map(causeOf),
      );
  }, [id, found]);
  if (!found) return null;
  const line = found.causes.flatMap((cause) =>
    cause.findings.map((finding) => ({ cause, finding })),
  );
  const known = line.findIndex(({ finding }) => finding.key === chosen.key);
  // Where one is settled, the next takes its place.
  const place = known >= 0 ? known : Math.min(chosen.place, line.length - 1);
  const go = (to: number) => {
    const next = line[to];
    if (!next) return;
    setChosen({ key: next.finding.key, place: to });
    // The ribbon goes along.
    if (next.finding.blockId !== null) chooseBlock(next.finding.blockId);
  };
  return {
    ...{ lesson, cut, ...found },
    at: line[place] ?? null,
    choose: (key) => go(line.findIndex(({ finding }) => finding.key === key)),
    step: (by) => go(place + by),
  };
}
