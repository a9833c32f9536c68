import type { EntryBody } from '@zest/core/results';
import { Scorm12API } from 'scorm-again';
import { describe, expect, it } from 'vitest';
import { findApi, ScormReport, scormTime, type ScormApi } from './scorm.ts';

/** An independent run-time (scorm-again, MIT), strict about names and values. */
function platform() {
  const api = new Scorm12API({ autocommit: false, logLevel: 'NONE' });
  return {
    api: api as unknown as ScormApi,
    cmi: api.cmi,
    errors: () => api.lmsGetLastError(),
    left: () => (api.cmi.core.toJSON() as { exit: string }).exit,
    load: (kept: object) => api.loadFromJSON(kept as Parameters<typeof api.loadFromJSON>[0]),
  };
}

const score = (value: number): EntryBody => ({
  kind: 'score',
  blockId: 'b',
  key: 'k',
  title: 'Fast skips, “high”',
  measure: 'count',
  better: 'more',
  value,
  side: 'left',
  level: 'standard',
  seconds: 30,
});

describe('what a learning platform is told', () => {
  it('is how far the student got: completed once nearly all was seen, and never less than before', () => {
    const { api, cmi, errors } = platform();
    const report = new ScormReport(api);
    expect(cmi.core.lesson_status).toBe('incomplete');
    report.note({ kind: 'reached', atMs: 40, totalMs: 100 });
    expect([cmi.core.score.raw, cmi.core.lesson_status]).toEqual(['40', 'incomplete']);
    report.note({ kind: 'reached', atMs: 97, totalMs: 100 });
    report.note({ kind: 'reached', atMs: 10, totalMs: 100 });
    expect([
      cmi.core.score.raw,
      cmi.core.score.min,
      cmi.core.score.max,
      cmi.core.lesson_status,
    ]).toEqual(['97', '0', '100', 'completed']);
    expect(errors()).toBe('0');
  });

  it('is every number, answer and effort as an interaction, with values the run-time takes', () => {
    const { api, cmi, errors } = platform();
    const report = new ScormReport(api);
    for (const body of [
      score(24),
      { kind: 'answer', blockId: 'b', question: 'Which foot?', text: 'The other one' },
      { kind: 'effort', value: 3 },
      { kind: 'opened' },
    ] satisfies EntryBody[]) {
      report.note(body);
      expect(errors()).toBe('0');
    }
    const { childArray } = cmi.interactions as unknown as {
      childArray: {
        toJSON: () => { id: string; type: string; student_response: string; result: string };
      }[];
    };
    // A page may only write them; the platform reads them as they are stored.
    expect(
      childArray
        .map((one) => one.toJSON())
        .map(({ id, type, student_response: response, result }) => [id, type, response, result]),
    ).toEqual([
      ['Fast_skips_high_left', 'numeric', '24', 'neutral'],
      ['Which_foot_', 'fill-in', 'The other one', 'neutral'],
      ['effort', 'likert', '3', 'neutral'],
    ]);
    report.finish();
    expect(errors()).toBe('0');
    // After the end nothing more is said.
    report.note(score(1));
    expect(childArray).toHaveLength(3);
  });

  it('is where the student was, and at the next visit it goes on there and adds up what was seen', () => {
    const first = platform();
    const report = new ScormReport(first.api);
    report.note({ kind: 'reached', atMs: 40_000, totalMs: 100_000, seen: [[0, 40_000]] });
    report.place.keep({ atMs: 40_000, totalMs: 100_000 });
    report.finish();
    expect([first.cmi.core.lesson_location, first.left(), first.errors()]).toEqual([
      '40000',
      'suspend',
      '0',
    ]);

    const second = platform();
    second.load({
      core: {
        lesson_location: first.cmi.core.lesson_location,
        lesson_status: 'incomplete',
        entry: 'resume',
        score: { raw: '40' },
      },
      suspend_data: first.cmi.suspend_data,
    });
    const again = new ScormReport(second.api);
    expect(again.place.read()).toEqual({ atMs: 40_000, totalMs: 100_000 });
    again.note({ kind: 'reached', atMs: 70_000, totalMs: 100_000, seen: [[60_000, 70_000]] });
    expect(second.cmi.core.score.raw).toBe('50');
    again.note({ kind: 'reached', atMs: 100_000, totalMs: 100_000, seen: [[30_000, 100_000]] });
    again.place.keep(null);
    again.finish();
    expect([
      second.cmi.core.score.raw,
      second.cmi.core.lesson_status,
      second.cmi.core.lesson_location,
      second.left(),
    ]).toEqual(['100', 'completed', '', '']);
    expect(second.errors()).toBe('0');
  });

  it('keeps far less than a platform may refuse, and makes nothing of what it cannot read', () => {
    const { api, cmi, load } = platform();
    load({ core: { lesson_location: 'chapter 2' }, suspend_data: 'bookmark=7;x' });
    const report = new ScormReport(api);
    expect(report.place.read()).toBeNull();
    report.note({
      kind: 'reached',
      atMs: 5_000_000,
      totalMs: 7_200_000,
      seen: Array.from({ length: 400 }, (_, i) => [i * 10_000, i * 10_000 + 2_000 + i]),
    });
    expect(cmi.suspend_data.length).toBeGreaterThan(100);
    // CMIString4096, SCORM 1.2 Run-Time Environment, 3.4.
    expect(cmi.suspend_data.length).toBeLessThan(4_096);
  });

  it('is found in the frames around, and not looked for for ever', () => {
    const { api } = platform();
    const outer: Record<string, unknown> = { API: api };
    outer['parent'] = outer;
    expect(findApi({ parent: { parent: outer } })).toBe(api);
    expect(findApi({ opener: outer, parent: null })).toBe(api);
    const lonely: Record<string, unknown> = {};
    lonely['parent'] = lonely;
    expect(findApi(lonely)).toBeNull();
  });

  it('writes times as SCORM 1.2 does', () => {
    expect([0, 61_230, 3_600_000 * 12 + 5_000].map(scormTime)).toEqual([
      '0000:00:00.00',
      '0000:01:01.23',
      '0012:00:05.00',
    ]);
  });
});
