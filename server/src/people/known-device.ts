import { createHash, randomUUID } from 'node:crypto';
import type { Request, Response } from 'express';
import { z } from 'zod';

const COOKIE = 'lanternwright_device';
const A_YEAR_MS = 365 * 86_400_000;
/** Most people that one device remembers; a shared tablet forgets who was there first. */
const MOST_PEOPLE = 20;

/** What a browser keeps, signed: a number of its own, and for whom somebody signed in with a password on it. */
const keptSchema = z.object({ device: z.uuid(), people: z.array(z.string()) });
type Kept = z.output<typeof keptSchema>;

/** A name is not written down on a tablet that lies about. */
const marked = (login: string) => createHash('sha256').update(login).digest('hex').slice(0, 16);

function keptBy(req: Request): Kept | null {
  const said: unknown = (req.signedCookies as Record<string, unknown>)[COOKIE];
  const kept = keptSchema.safeParse(said);
  return kept.success ? kept.data : null;
}

/** The device, where this name was signed in with on it before: strangers who try that name lock nobody out of it. */
export function knownDevice(req: Request, login: string): string | null {
  const kept = keptBy(req);
  return kept?.people.includes(marked(login)) ? kept.device : null;
}

/** Remembers on the device that somebody signed in there with their password. */
export function rememberDevice(req: Request, res: Response, login: string): void {
  const kept = keptBy(req) ?? { device: randomUUID(), people: [] };
  const others = kept.people.filter((p) => p !== marked(login));
  const people = [...others, marked(login)].slice(-MOST_PEOPLE);
  res.cookie(COOKIE, { device: kept.device, people } satisfies Kept, {
    ...{ signed: true, httpOnly: true, sameSite: 'strict', secure: req.secure, maxAge: A_YEAR_MS },
  });
}
