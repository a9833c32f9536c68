import ICAL from 'ical.js';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { makeSeries } from '../lesson/index.ts';
import { layOutWeeks } from '../schedule/index.ts';
import { seriesCalendar } from './calendar.ts';

// Read back with ical.js, a reader from outside the project.
const read = (text: string) =>
  new ICAL.Component(ICAL.parse(text) as [])
    .getAllSubcomponents('vevent')
    .map((event) => new ICAL.Event(event));

const series = {
  ...makeSeries('Quayside "autumn"; ropes, discs'),
  weeks: 2,
  startsOn: '2026-10-21',
  weekdays: [1, 3],
  atMinutes: 15 * 60 + 30,
};
const lesson = {
  title: 'Skip, throw, balance',
  outcome: 'Flies flat.',
  studentMs: 22 * 60_000,
  kit: ['rope', 'disc (or lid)'],
};

afterEach(() => vi.unstubAllEnvs());

describe.each(['UTC', 'America/New_York', 'Europe/Berlin', 'Pacific/Auckland'])(
  'the series as a calendar, made in %s',
  (zone) => {
    beforeEach(() => void vi.stubEnv('TZ', zone));

    it('has each session at the hour of the wall clock, across the end of summer time', () => {
      const events = read(
        seriesCalendar(
          series,
          layOutWeeks(series),
          new Map([[1, lesson]]),
          's1',
          new Date(0),
          'en',
        ),
      );
      expect(events.map((event) => event.startDate.toString())).toEqual([
        '2026-10-21T15:30:00',
        '2026-10-26T15:30:00',
        '2026-10-28T15:30:00',
      ]);
      expect(events.map((event) => event.startDate.zone.tzid)).toEqual([
        'floating',
        'floating',
        'floating',
      ]);
      expect(events[0]?.endDate.toString()).toBe('2026-10-21T15:52:00');
      expect(events[0]?.summary).toBe(
        'Quayside "autumn"; ropes, discs, week 1: Skip, throw, balance',
      );
      expect(events[0]?.description).toBe('Flies flat.\nWhat you need: rope, disc (or lid)');
      expect(events[1]?.summary).toContain('week 2: lesson to come (1 of 2)');
      expect(new Set(events.map(({ uid }) => uid)).size).toBe(3);
    });

    it('takes no line from a name', () => {
      const bad = {
        ...series,
        name: 'Quay\r\nATTENDEE:mailto:a@b',
        about: 'One\r\nTwo\rBEGIN:VALARM\u2028X',
      };
      const text = seriesCalendar(
        bad,
        layOutWeeks(bad),
        new Map([
          [1, { ...lesson, title: 'Skip\rRRULE:FREQ=DAILY\u0000', kit: ['rope\r\nX-A:1'] }],
        ]),
        's1',
        new Date(0),
        'en',
      );
      expect(
        text.split(/\r\n|\r|\n/).filter((line) => /^(ATTENDEE|BEGIN:VALARM|RRULE|X-A)/.test(line)),
      ).toEqual([]);
      expect(text.replace(/\r\n/g, '')).not.toMatch(/[\r\n\0]/);
      expect(read(text)[0]?.summary).toBe(
        'Quay ATTENDEE:mailto:a@b, week 1: Skip RRULE:FREQ=DAILY',
      );
    });

    it('has whole days where no hour is set, and lines no longer than 75 octets', () => {
      const days = { ...series, atMinutes: null, name: 'Übung 🤸 '.repeat(12) };
      const text = seriesCalendar(days, layOutWeeks(days), new Map(), 's1', new Date(0), 'en');
      expect(read(text).map(({ startDate }) => startDate.toString())).toEqual([
        '2026-10-21',
        '2026-10-26',
        '2026-10-28',
      ]);
      expect(read(text)[0]?.summary).toContain('Übung 🤸 Übung');
      const bytes = new TextEncoder();
      for (const line of text.split('\r\n'))
        expect(bytes.encode(line).length).toBeLessThanOrEqual(75);
    });
  },
);
