import 'fake-indexeddb/auto';
import { configure, render } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { clear } from 'idb-keyval';
import { useState, type ReactNode } from 'react';
import { Provider } from 'react-redux';
import { MemoryRouter } from 'react-router';
import { vi } from 'vitest';
import type { Session } from '@lanternwright/contract/people';
import { peopleApi } from '../people/people-api.ts';
import { newStore } from '../store.ts';

// A busy machine is slow, not wrong.
configure({ asyncUtilTimeout: 20_000 });

export interface Asked {
  method: string;
  path: string;
  body: unknown;
}

/** What a server answers: a body, or a status with one. */
export type Answer = (asked: Asked) => { status?: number; body: unknown };

/** A browser knows the address of its page; Node does not. */
export class LocalRequest extends Request {
  constructor(input: RequestInfo | URL, init?: RequestInit) {
    super(typeof input === 'string' ? new URL(input, 'http://shop.test') : input, init);
  }
}

/** Stands in for the server: every request is noted and answered. */
export function serveWith(answer: Answer): Asked[] {
  const asked: Asked[] = [];
  vi.stubGlobal('fetch', async (input: Request | string, init?: RequestInit) => {
    const request = new Request(input, init);
    const text = await request.text();
    const { pathname, search } = new URL(request.url);
    const one = {
      method: request.method,
      path: pathname + search,
      body: text === '' ? null : (JSON.parse(text) as unknown),
    };
    asked.push(one);
    const { status = 200, body } = answer(one);
    return new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } });
  });
  vi.stubGlobal('Request', LocalRequest);
  return asked;
}

/** What a part of a page that asks the server nothing stands in. */
export function InStore({ children }: { children: ReactNode }) {
  const [store] = useState(newStore);
  return <Provider store={store}>{children}</Provider>;
}

/** A part of the page as somebody sees it. */
export async function show(part: ReactNode, session: Session, at = '/') {
  await clear();
  const store = newStore();
  await store.dispatch(peopleApi.util.upsertQueryData('session', undefined, session));
  render(
    <Provider store={store}>
      <MemoryRouter initialEntries={[at]}>{part}</MemoryRouter>
    </Provider>,
  );
  return { store, user: userEvent.setup() };
}

/** A refusal as the server writes one. */
export const refusedFor = (path: string, message: string, status = 422) => ({
  status,
  body: { type: 'about:blank', title: 'Refused', status, detail: message, issues: [{ path, message }] },
});
