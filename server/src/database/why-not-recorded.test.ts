import { ConnectionRefusedError, DatabaseError } from 'sequelize';
import { expect, it } from 'vitest';
import { whyNotRecorded } from './why-not-recorded.ts';

const coded = (code: string) => Object.assign(new Error('it broke'), { code });

it('tells a database that takes nothing just now from what is wrong with a request', () => {
  const of = (code: string) => whyNotRecorded(new DatabaseError(Object.assign(coded(code), { sql: '' })));
  expect(of('53100')).toBe('its disk is full');
  expect(of('25006')).toBe('it may only be read');
  expect(of('53300')).toBe('it has no more room or connections');
  expect(['57P01', '57P03', '08006'].map(of)).toEqual(Array(3).fill('it does not answer'));
  expect(whyNotRecorded(coded('ECONNREFUSED'))).toBe('it does not answer');
  expect(whyNotRecorded(new ConnectionRefusedError(coded('ECONNREFUSED')))).toBe('it does not answer');
  // A key that is there twice, a slip in our SQL and a deadlock are none of that.
  expect(['23505', '42601', '40P01', '57014'].map(of)).toEqual(Array(4).fill(null));
  expect([new TypeError('x'), null, 'text', { original: null }].map(whyNotRecorded)).toEqual(
    Array(4).fill(null),
  );
});
