import { describe, expect, it } from 'vitest';
import type { MeasuredTime } from './durations.ts';
import {
  dayBegins,
  endOfMoved,
  heaviest,
  hoursTogether,
  mondayOf,
  describeBecause,
  describeMove,
  shopPlanInputOf,
  visitTime,
  weekLoads,
  weekSchema,
  workSpans,
  workTime,
  type ShopHours,
} from './index.ts';

const week = (...days: [string, string][][]) => [
  ...days.map((d) => d.map(([from, until]) => ({ from, until }))),
  ...Array.from({ length: 7 - days.length }, () => []),
];
const at = (iso: string) => Date.parse(iso);
const said = (hours: ShopHours, from: string, until: string) =>
  workSpans(hours, at(from), at(until)).map(
    (s) => `${new Date(s.from).toISOString().slice(0, 16)} ${new Date(s.until).toISOString().slice(11, 16)}`,
  );

describe('the hours of a shop', () => {
  const hours = {
    week: week(
      [
        ['08:00', '12:00'],
        ['13:00', '17:00'],
      ],
      [['08:00', '12:00']],
    ),
    holidays: [],
    zone: 'Europe/Dublin',
  };

  it('go by the weekday, and rest between two spans and on holidays', () => {
    // 4 January 2027 is a Monday; Dublin is on UTC in winter.
    expect(said(hours, '2027-01-04T00:00Z', '2027-01-07T00:00Z')).toEqual([
      '2027-01-04T08:00 12:00',
      '2027-01-04T13:00 17:00',
      '2027-01-05T08:00 12:00',
    ]);
    const closed = { ...hours, holidays: [{ date: '2027-01-04' }] };
    expect(said(closed, '2027-01-04T00:00Z', '2027-01-06T00:00Z')).toEqual(['2027-01-05T08:00 12:00']);
    expect(said(hours, '2027-01-04T09:30Z', '2027-01-04T14:00Z')).toEqual([
      '2027-01-04T09:30 12:00',
      '2027-01-04T13:00 14:00',
    ]);
  });

  it('keep their times of day when the clocks change', () => {
    // Summer time begins in Dublin on 28 March 2027, a Sunday: eight o’clock is then seven by UTC.
    expect(said(hours, '2027-03-22T00:00Z', '2027-03-23T00:00Z')[0]).toBe('2027-03-22T08:00 12:00');
    expect(said(hours, '2027-03-29T00:00Z', '2027-03-30T00:00Z')[0]).toBe('2027-03-29T07:00 11:00');
    // A night shift over the change works an hour less: 23:00 to 24:00 and 00:00 to 04:00 on that Sunday.
    const night = { ...hours, week: [...week([]).slice(0, 6), [{ from: '00:00', until: '04:00' }]] };
    const [span] = workSpans(night, at('2027-03-28T00:00Z') - 1, at('2027-03-29T00:00Z'));
    expect((span!.until - span!.from) / 3_600_000).toBe(3);
  });

  it('a day begins and a week too by the shop’s own clock', () => {
    expect(new Date(dayBegins('2027-06-01', 'Europe/Dublin')).toISOString()).toBe('2027-05-31T23:00:00.000Z');
    expect(new Date(dayBegins('2027-01-31', 'Pacific/Auckland', 1)).toISOString()).toBe(
      '2027-01-31T11:00:00.000Z',
    );
    expect(mondayOf('2027-01-04')).toBe('2027-01-04');
    expect(mondayOf('2027-01-03')).toBe('2026-12-28');
    expect(mondayOf('2028-02-29', 1)).toBe('2028-03-06');
  });

  it('are refused when a span ends before it begins or runs into the next', () => {
    expect(weekSchema.safeParse(week([['12:00', '08:00']])).success).toBe(false);
    expect(
      weekSchema.safeParse(
        week([
          ['08:00', '12:00'],
          ['11:00', '14:00'],
        ]),
      ).success,
    ).toBe(false);
    expect(
      weekSchema.safeParse(
        week([
          ['08:00', '12:00'],
          ['12:00', '24:00'],
        ]),
      ).success,
    ).toBe(true);
    expect(weekSchema.safeParse(week([['8', '12:00']])).success).toBe(false);
  });
});

describe('how long work takes', () => {
  const own: MeasuredTime = { work: 'seal', kind: 'tractor', low: 70, usual: 80, high: 95, measured: 6 };

  it('is what this shop took, once it is enough', () => {
    expect(workTime('seal', 'tractor', [own])).toEqual({ low: 70, usual: 80, high: 95, measured: 6 });
    const few = [{ ...own, measured: 4 }];
    expect(workTime('seal', 'tractor', few)).toEqual(workTime('seal', 'tractor', []));
    expect(workTime('seal', 'bus', [own]).measured).toBe(0);
  });

  it('of a visit is that of its wheel ends, each by its heaviest work', () => {
    expect(heaviest(['check', 'seal', 'brakes'])).toBe('seal');
    expect(heaviest([])).toBeNull();
    const time = visitTime([{ works: ['check', 'seal'] }, { works: ['seal'] }], 'tractor', [own]);
    expect(time).toEqual({ low: 170, usual: 190, high: 220, measured: 6 });
    const half = visitTime(
      [
        { works: ['seal'], left: 0.5 },
        { works: ['seal'], left: 0 },
      ],
      'tractor',
      [own],
    );
    expect(half).toEqual({ low: 65, usual: 70, high: 77.5, measured: 6 });
  });
});

describe('the input of a plan', () => {
  const now = at('2027-01-04T08:00Z');
  const hour = (n: number) => now + n * 3_600_000;
  const shop = {
    now,
    bays: [{ id: 'b1' }],
    people: [{ id: 'ann' }],
    hours: [
      { from: hour(-1), until: hour(4) },
      { from: hour(24), until: hour(28) },
    ],
    taken: [
      { what: 'unit' as const, of: 'u1', from: hour(1), until: hour(2) },
      { what: 'person' as const, of: 'ann', from: hour(-3), until: hour(1) },
      { what: 'bay' as const, of: 'b2', from: hour(0), until: hour(1) },
    ],
  };
  const visit = {
    id: 'v',
    unitId: 'u1',
    minutes: 100,
    people: 1 as const,
    tools: [],
    from: hour(-5),
    due: hour(-24),
    weight: 2,
  };

  it('counts minutes from now, in quarters, and keeps what is away away', () => {
    const input = shopPlanInputOf(shop, [visit]);
    expect(input.people).toMatchObject([
      {
        works: [
          { fromMin: 0, untilMin: 240 },
          { fromMin: 1440, untilMin: 1680 },
        ],
        taken: [{ fromMin: 0, untilMin: 60 }],
      },
    ]);
    expect(input.bays[0]!.taken).toEqual([]);
    expect(input.jobs).toMatchObject([
      {
        ...{ id: 'v', minutes: 105, releaseMin: 0, dueMin: -1440, weight: 2 },
        stays: [
          { fromMin: 0, untilMin: 60 },
          { fromMin: 120, untilMin: 1680 },
        ],
      },
    ]);
    expect(shopPlanInputOf(shop, [{ ...visit, people: 2 }]).jobs[0]!.minutes).toBe(60);
  });
});

describe('the load of the weeks', () => {
  it('is hours of people against what is booked and due, what is overdue in the first', () => {
    const hour = (n: number) => n * 3_600_000;
    const weeks = [
      { from: 0, until: hour(168) },
      { from: hour(168), until: hour(336) },
    ];
    const hours = [
      { from: hour(8), until: hour(16) },
      { from: hour(176), until: hour(184) },
    ];
    const mornings = hours.map((h) => ({ ...h, until: h.from + hour(4) }));
    const loads = weekLoads(weeks, {
      ...{ hours, people: [hours, hours, mornings] },
      away: [{ nth: 0, from: hour(12), until: hour(200) }],
      booked: [
        { from: hour(8), until: hour(30), people: 2 },
        { from: hour(180), until: hour(190), people: 0 },
      ],
      due: [
        { at: hour(-50), low: 1, usual: 2, high: 3 },
        { at: hour(300), low: 4, usual: 5, high: 6 },
      ],
    });
    expect(loads).toMatchObject([
      { capacityHours: 16, bookedHours: 16, dueHours: { low: 1, usual: 2, high: 3 } },
      { capacityHours: 12, bookedHours: 4, dueHours: { low: 4, usual: 5, high: 6 } },
    ]);
  });
});

describe('hours of several people', () => {
  it('are together those in which all of them work', () => {
    const spans = (...list: [number, number][]) => list.map(([from, until]) => ({ from, until }));
    const early = spans([6, 10], [11, 14], [30, 38]);
    const late = spans([9, 13], [14, 18]);
    expect(hoursTogether([early, late])).toEqual(spans([9, 10], [11, 13]));
    expect(hoursTogether([early])).toEqual(early);
    expect(hoursTogether([early, late, spans([12, 40])])).toEqual(spans([12, 13]));
  });
});

describe('a booking that is moved', () => {
  const hour = (n: number) => n * 3_600_000;
  const hours = [0, 1, 2].map((d) => ({ from: hour(24 * d + 8), until: hour(24 * d + 16) }));
  const four = { from: hour(8), until: hour(12) };

  it('keeps its hours of work over a night, and its length where nobody works', () => {
    expect(endOfMoved(hours, four, hour(9))).toBe(hour(13));
    expect(endOfMoved(hours, four, hour(14))).toBe(hour(24 + 10));
    expect(endOfMoved(hours, { from: hour(14), until: hour(24 + 10) }, hour(24 + 8))).toBe(hour(24 + 12));
    expect(endOfMoved(hours, { from: hour(18), until: hour(20) }, hour(9))).toBe(hour(11));
    expect(endOfMoved(hours, four, hour(200))).toBe(hour(204));
  });
});

describe('the sentences of a plan', () => {
  const nameOf = (id: string) => `Tern ${id}`;

  it('say for every reason why then, with the units that were there before', () => {
    const kinds = [
      'release',
      'hours',
      'stay',
      'taken',
      'bay',
      'people',
      'tool',
      'several',
      'unexplained',
    ] as const;
    const all = kinds.map((kind) => describeBecause({ kind, jobs: ['4', '5'] }, 'now', nameOf));
    expect(new Set(all).size).toBe(kinds.length);
    expect(all.every((s) => /^[A-Z].*\.$/.test(s))).toBe(true);
    expect(all[4]).toBe('Every bay is taken until Tern 4 and Tern 5 are finished.');
    expect(all[5]).toBe('All technicians are busy until Tern 4 and Tern 5 are finished.');
    expect(describeBecause({ kind: 'release' }, 'interval', nameOf)).toMatch(/^Two weeks before it is due/);
  });

  it('say why a booking moves', () => {
    const kinds = ['people', 'bay', 'tool', 'stay', 'release', 'hours'] as const;
    expect(new Set(kinds.map((kind) => describeMove({ kind }, nameOf))).size).toBe(kinds.length);
    expect(describeMove({ kind: 'room', jobs: ['7'] }, nameOf)).toBe('Makes room for Tern 7.');
    expect(describeMove({ kind: 'room', jobs: [] }, nameOf)).toMatch(/a booking that has to move/);
  });
});
