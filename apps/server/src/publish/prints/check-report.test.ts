import type { Finding } from '@zest/core/checks';
import { blocksOf, makeBlock, makeLesson, makeSection } from '@zest/core/lesson';
import { describe, expect, it } from 'vitest';
import { reported } from './check-report.tsx';

const ids = () => {
  let n = 0;
  return () => `id-${(n += 1)}`;
};

/** A lesson of so many talks, and the finding that each one's picture is black. */
function blackTalks(n: number) {
  const makeId = ids();
  const talks = Array.from({ length: n }, (_, i) => ({
    ...makeBlock('talk', makeId, 'en'),
    title: `Talk ${i + 1}`,
  }));
  const lesson = {
    ...makeLesson('Quay', makeId),
    sections: [{ ...makeSection('Part', makeId), blocks: talks }],
  };
  const findings = blocksOf(lesson).map(({ id, title }, i): Finding => ({
    ...{ rule: 'black', key: `black ${id}`, harm: 'cannot see it', bench: 'film' },
    ...{ source: null, blockId: id, atMs: i * 10_000, figures: { block: title, shownMs: 2_000 } },
    ...{ seenAt: [], remedy: null, waived: null },
  }));
  return { lesson, findings };
}

describe('the check’s report', () => {
  it('tells what has one cause in one line, with its places', () => {
    const { lesson, findings } = blackTalks(9);
    const [line, ...others] = reported(lesson, findings);
    expect(others).toEqual([]);
    expect(line?.say).toBe('The picture of 9 blocks is black for a while.');
    expect(line?.where).toBe(
      '0:00 Talk 1, 0:10 Talk 2, 0:20 Talk 3, 0:30 Talk 4, 0:40 Talk 5, 0:50 Talk 6 and 3 more',
    );
  });

  it('tells what is ignored one by one, each with its reason', () => {
    const { lesson, findings } = blackTalks(3);
    const lines = reported(
      lesson,
      findings.map((finding, i) => (i === 0 ? finding : { ...finding, waived: `reason ${i}` })),
    );
    expect(lines.map(({ where, waived }) => [where, waived])).toEqual([
      ['0:00 Talk 1', null],
      ['0:10 Talk 2', 'reason 1'],
      ['0:20 Talk 3', 'reason 2'],
    ]);
  });
});
