import { createHash, randomInt, randomUUID, timingSafeEqual } from 'node:crypto';
import argon2 from 'argon2';
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

/** Spent where there is no secret to compare with, so that an answer takes as long as for a known one. */
const decoy = argon2.hash(randomUUID());

/** Whether a secret is the one that was kept; takes the same time where none was. */
export async function isSecret(typed: string, kept: string | null | undefined): Promise<boolean> {
  const fits = await argon2.verify(kept ?? (await decoy), typed);
  return fits && kept != null;
}

export const keepSecret = (secret: string): Promise<string> => argon2.hash(secret);

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
