import { describe, expect, it } from 'vitest';
import { quantity } from '@lanternwright/core/quantity';
import { newUnitSchema } from '../fleet/index.ts';
import { postEventSchema } from '../jobs/index.ts';
import { firstPersonSchema, newPersonSchema } from '../people/index.ts';
import { openApi } from './index.ts';

interface Operation {
  summary: string;
  parameters: { name: string; in: string; required: boolean }[];
  requestBody?: object;
  responses: Record<string, object>;
}

/** Routes that a caller relies on, written down here and not read off the description. */
const known = [
  'get /api/people/session',
  'post /api/people/session',
  'post /api/fleet/units',
  'get /api/fleet/units/{id}',
  'get /api/jobs',
  'get /api/jobs/{id}',
  'post /api/jobs/{id}/events',
  'post /api/jobs/{id}/second-person',
  'put /api/tools',
  'delete /api/tools/{id}',
  'post /api/instruments/take',
];

describe('openApi', () => {
  const { paths } = openApi('1.2.3') as { paths: Record<string, Record<string, Operation>> };

  it('describes every route with its parameters, body and problems', () => {
    const operations = Object.entries(paths).flatMap(([path, methods]) =>
      Object.entries(methods).map(([method, o]) => ({ path, method, ...o })),
    );
    expect(operations.map((o) => `${o.method} ${o.path}`)).toEqual(expect.arrayContaining(known));
    for (const o of operations) {
      expect(o.summary.length).toBeGreaterThan(5);
      expect(o.responses['default']).toBeDefined();
      const inPath = [...o.path.matchAll(/\{(\w+)\}/g)].map((m) => m[1]);
      expect(o.parameters.filter((p) => p.in === 'path').map((p) => p.name)).toEqual(inPath);
      expect(o.requestBody !== undefined).toBe(o.method === 'post' || o.method === 'put');
    }
  });

  it('marks a query as optional where the schema has a default', () => {
    expect(paths['/api/jobs']?.['get']?.parameters).toMatchObject([
      { name: 'status', in: 'query', required: false },
      { name: 'page', in: 'query', required: false },
    ]);
  });
});

describe('what crosses the wire', () => {
  it('a person’s name to sign in with is folded to lower case, a password is long', () => {
    const person = {
      name: 'M. Pellow',
      login: ' Pellow ',
      role: 'technician',
      password: 'long enough it is',
    };
    expect(newPersonSchema.parse(person).login).toBe('pellow');
    const first = { name: 'M. Pellow', login: 'pellow', code: '4711-0815' };
    expect(firstPersonSchema.safeParse({ ...first, password: 'short' }).success).toBe(false);
    expect(firstPersonSchema.safeParse({ ...first, password: 'four wet bearings' }).success).toBe(true);
    expect(newPersonSchema.safeParse({ ...person, role: 'owner' }).success).toBe(false);
  });

  it('a command carries its SI values computed, and nothing the sender made up', () => {
    const command = {
      kind: 'reading-taken',
      position: '2L',
      round: 1,
      push: { value: 0, unit: 'in' },
      pull: { value: 5, unit: 'thou', si: 7 },
      source: 'typed',
      extra: 'x',
    };
    const parsed = postEventSchema.parse({
      id: '00000000-0000-4000-8000-000000000001',
      seenVersion: 1,
      command,
    });
    expect(parsed.command).toEqual({
      kind: 'reading-taken',
      position: '2L',
      round: 1,
      push: quantity(0, 'in'),
      pull: quantity(5, 'thou'),
      source: 'typed',
    });
  });

  it('a unit has one to nine axles', () => {
    const unit = { owner: 'A', name: 'B', kind: 'bus', axles: [] };
    expect(newUnitSchema.safeParse(unit).error?.issues[0]?.path).toEqual(['axles']);
  });
});
