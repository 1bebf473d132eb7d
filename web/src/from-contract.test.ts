import { describe, expect, it } from 'vitest';
import { requestOf } from './from-contract.ts';

describe('a request made from what its route is given', () => {
  it('has the one thing of its address, escaped', () => {
    expect(requestOf('get', '/api/fleet/units/:id', 'a b/c')).toEqual({
      url: 'api/fleet/units/a%20b%2Fc',
      method: 'GET',
    });
  });

  it('puts what is not in the address into the query or the body', () => {
    expect(requestOf('get', '/api/fleet/units/:id/history', { id: '7', position: '2L' })).toEqual({
      ...{ url: 'api/fleet/units/7/history', method: 'GET' },
      params: { position: '2L' },
    });
    expect(requestOf('delete', '/api/tools/:id', { id: '7', seenVersion: 3 })).toMatchObject({
      params: { seenVersion: 3 },
    });
    expect(requestOf('put', '/api/plan/bookings/:id', { id: '7', seenVersion: 3, bayId: 'b' })).toEqual({
      ...{ url: 'api/plan/bookings/7', method: 'PUT' },
      body: { seenVersion: 3, bayId: 'b' },
    });
  });

  it('has no query and no body where nothing is given', () => {
    expect(requestOf('post', '/api/people/me/sign-out-everywhere', undefined)).toEqual({
      ...{ url: 'api/people/me/sign-out-everywhere', method: 'POST' },
    });
  });

  it('leaves what it is given as it was', () => {
    const given = { id: '7', seenVersion: 3 };
    requestOf('post', '/api/plan/bookings/:id/lock', given);
    expect(given).toEqual({ id: '7', seenVersion: 3 });
  });
});
