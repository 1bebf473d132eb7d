import { z } from 'zod';
import { defineRoute } from '../route/index.ts';

/** One reading as a unit's own device tells it. Distance in km, hours of the engine. */
export const feedReadingSchema = z.object({
  id: z.string().min(1).max(80),
  /** The plate of the unit, or its name. */
  vehicle: z.string().min(1).max(80),
  at: z.iso.datetime({ offset: true }),
  odometerKm: z.number().min(0).max(10_000_000).optional(),
  engineHours: z.number().min(0).max(500_000).optional(),
});
export type FeedReading = z.output<typeof feedReadingSchema>;

/** What a feed answers to `GET /readings?after=`: readings after a place, and the place to go on from. */
export const feedAnswerSchema = z.object({
  /** One that is none is left out, not the rest. */
  readings: z.array(z.unknown()).max(5_000),
  next: z.string().max(200),
  more: z.boolean(),
});

const feedStandSchema = z.object({
  /** Where it is asked; null where no feed is set. */
  url: z.string().nullable(),
  pushes: z.boolean(),
  askedAt: z.iso.datetime().nullable(),
  answeredAt: z.iso.datetime().nullable(),
  /** Why the last answer could not be taken. */
  trouble: z.string().nullable(),
  /** Readings so far: kept, and known already or too many of a day. */
  kept: z.int(),
  known: z.int(),
  /** Vehicles of the feed that are no unit here, with how often they spoke. */
  strangers: z.array(z.object({ vehicle: z.string(), times: z.int() })),
});
export type FeedStand = z.infer<typeof feedStandSchema>;

const tookSchema = z.object({ kept: z.int(), known: z.int(), refused: z.int() });
export type FeedTook = z.infer<typeof tookSchema>;

export const feedRoutes = {
  stand: defineRoute({
    method: 'get',
    path: '/api/feed',
    summary: "How the units' own feed of readings stands",
    access: 'change-fleet',
    answer: feedStandSchema,
  }),
  ask: defineRoute({
    method: 'post',
    path: '/api/feed/ask',
    summary: 'Ask the feed now',
    access: 'change-fleet',
    answer: feedStandSchema,
  }),
  push: defineRoute({
    method: 'post',
    path: '/api/feed/push',
    summary: 'Readings that the feed brings by itself, with its secret as a bearer token; at most 50 at once',
    access: 'anyone',
    body: z.object({ readings: z.array(z.unknown()).min(1).max(50) }),
    answer: tookSchema,
  }),
};
