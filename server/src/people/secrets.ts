import { createHash, randomInt, randomUUID, timingSafeEqual } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';
import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import { adjacencyGraphs, dictionary } from '@zxcvbn-ts/language-common';
import { refused } from '../http/problem.ts';

const guesser = new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs });
/** As much of a password as is looked at: guessing the rest is not what makes it weak. */
const LOOKED_AT = 64;
/** Of 0 to 4; below 2 somebody who tries gets in within hours. */
const LEAST_SCORE = 2;

/** What stands in passwords of a workshop, and in nobody's list of common ones. */
const ofTheTrade = [
  ...['lanternwright', 'workshop', 'garage', 'mechanic', 'technician', 'supervisor', 'truck', 'trailer'],
  ...['wheel', 'wheelend', 'bearing', 'axle', 'seal', 'torque', 'brake', 'tractor', 'service'],
];

/** One or two of these, with figures and signs before, between or after them. */
const onlyOfTheTrade = new RegExp(`^(?:${ofTheTrade.join('|')}){1,2}s?$`);

/**
 * Above the least that OWASP's Password Storage Cheat Sheet names for Argon2id (19 MiB, 2 passes, 1 lane): here 64 MiB, 3
 * passes, 4 lanes, the second recommended set of RFC 9106, section 4.
 */
const COST = { memoryCost: 65_536, timeCost: 3, parallelism: 4 };

/** Spent where there is no secret to compare with, so that an answer takes as long as for a known one. */
const decoy = hash(randomUUID(), COST);

/** Whether a secret is the one that was kept; takes the same time where none was. */
export async function isSecret(typed: string, kept: string | null | undefined): Promise<boolean> {
  const fits = await verify(kept ?? (await decoy), typed);
  return fits && kept != null;
}

export const keepSecret = (secret: string): Promise<string> => hash(secret, COST);

/**
 * A password that lists of common ones do not give away.
 * @param about what belongs to the person, and so to whoever guesses
 * @throws HttpProblem 422
 */
export function mustBeGood(password: string, about: readonly string[]): void {
  const { score } = guesser.check(password.slice(0, LOOKED_AT), [...about, ...ofTheTrade]);
  const letters = password.toLowerCase().replace(/[^a-z]/g, '');
  if (score < LEAST_SCORE || onlyOfTheTrade.test(letters))
    throw refused(
      'This is too easy to guess: common words, names and rows of keys are tried first',
      'password',
    );
}

/** Compares codes in a time that tells nothing; only their digits count. */
export function sameCode(typed: string, code: string): boolean {
  const hash = (text: string) => createHash('sha256').update(digitsOf(text)).digest();
  return timingSafeEqual(hash(typed), hash(code));
}

export const digitsOf = (text: string): string => text.replace(/\D/g, '');

/** A code of eight digits, in two groups. */
export const newCode = (): string => `${randomInt(1e3, 1e4)}-${randomInt(1e3, 1e4)}`;
