import type { EntryBody } from '@zest/core/results';
import { Scorm12API } from 'scorm-again';
import { describe, expect, it } from 'vitest';
import { findApi, ScormReport, scormTime, type ScormApi } from './scorm.ts';

/** An independent run-time (scorm-again, MIT), strict about names and values. */
function platform() {
  const api = new Scorm12API({ autocommit: false, logLevel: 'NONE' });
  return { api: api as unknown as ScormApi, cmi: api.cmi, errors: () => api.lmsGetLastError() };
}

const score = (value: number): EntryBody => ({ kind: 'score', blockId: 'b', key: 'k', title: 'Fast skips, “high”', measure: 'count', better: 'more', value, side: 'left', level: 'standard', seconds: 30 });

describe('what a learning platform is told', () => {
  it('is how far the student got: completed once nearly all was seen, and never less than before', () => {
    const { api, cmi, errors } = platform();
    const report = new ScormReport(api);
    expect(cmi.core.lesson_status).toBe('incomplete');
    report.note({ kind: 'reached', atMs: 40, ofMs: 100 });
    expect([cmi.core.score.raw, cmi.core.lesson_status]).toEqual(['40', 'incomplete']);
    report.note({ kind: 'reached', atMs: 97, ofMs: 100 });
    report.note({ kind: 'reached', atMs: 10, ofMs: 100 });
    expect([cmi.core.score.raw, cmi.core.score.min, cmi.core.score.max, cmi.core.lesson_status]).toEqual(['97', '0', '100', 'completed']);
    expect(errors()).toBe('0');
  });

  it('is every number, answer and effort as an interaction, with values the run-time takes', () => {
    const { api, cmi, errors } = platform();
    const report = new ScormReport(api);
    for (const body of [score(24), { kind: 'answer', blockId: 'b', question: 'Which foot?', text: 'The other one' }, { kind: 'effort', value: 3 }, { kind: 'opened' }] satisfies EntryBody[]) {
      report.note(body);
      expect(errors()).toBe('0');
    }
    const { childArray } = cmi.interactions as unknown as { childArray: { toJSON: () => { id: string; type: string; student_response: string; result: string } }[] };
    // A page may only write them; the platform reads them as they are stored.
    expect(childArray.map((one) => one.toJSON()).map(({ id, type, student_response: response, result }) => [id, type, response, result])).toEqual([
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
    expect([0, 61_230, 3_600_000 * 12 + 5_000].map(scormTime)).toEqual(['0000:00:00.00', '0000:01:01.23', '0012:00:05.00']);
  });
});
