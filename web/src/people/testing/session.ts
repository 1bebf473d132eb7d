import type { Person, Session } from '@lanternwright/contract/people';
import { usualReader } from '@lanternwright/core/quantity';

/** What the server says of somebody who is signed in with their password. */
export function sessionOf(person: Person, more: Partial<Session> = {}): Session {
  return {
    person,
    by: 'password',
    hasPin: false,
    demoPeople: [],
    needsFirstPerson: false,
    units: usualReader,
    shop: {
      name: 'Marrowbank Shared Works',
      address: '',
      terms: '',
      zone: 'UTC',
      units: usualReader,
      currency: 'GBP',
      paper: 'a4',
      bays: [],
      week: Array.from({ length: 7 }, () => []),
      holidays: [],
    },
    ...more,
  };
}
