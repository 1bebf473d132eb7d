import 'fake-indexeddb/auto';
import { configureStore } from '@reduxjs/toolkit';
import { cleanup, configure, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { clear } from 'idb-keyval';
import { Provider } from 'react-redux';
import { MemoryRouter, Route, Routes } from 'react-router';
import { afterEach, beforeEach, vi } from 'vitest';
import type { JobDetail } from '@lanternwright/contract/jobs';
import type { Tool } from '@lanternwright/core/tool';
import type { Actor, Command } from '@lanternwright/core/traveller';
import { openingOn, technician, TestJob } from '../../../../core/src/traveller/testing/work.ts';
import { peopleApi } from '../../people/people-api.ts';
import { sessionOf } from '../../people/testing/session.ts';
import { api } from '../../api.ts';
import '../../people/people-api.ts';
import { preferencesReducer } from '../../shell/preferences.ts';
import { LocalRequest } from '../../testing/fake-server.tsx';
import { toolsApi } from '../../tools/tools-api.ts';
import { JobPage } from '../job-page.tsx';
import { jobsApi } from '../jobs-api.ts';
import { outboxReducer } from '../outbox.ts';
import { photoQueueReducer } from '../photo-queue.ts';

// A busy machine is slow, not wrong.
configure({ asyncUtilTimeout: 20_000 });

/** Each test of a file begins on a device on which nothing was done. */
export function onFreshDevice(): void {
  beforeEach(() => {
    localStorage.clear();
    sessionStorage.clear();
    window.scrollTo = () => undefined;
  });
  afterEach(() => {
    cleanup();
    vi.unstubAllGlobals();
  });
}

/** A job page over a server of one job: commands go to the same `decide`, by the person who is signed in. */
export async function openPage(
  t: TestJob,
  person: Actor = technician,
  tools: readonly Tool[] = [],
  rest: (path: string) => unknown = () => undefined,
) {
  // What an earlier test left on the device is not this one's.
  await clear();
  const sent: Command[] = [];
  vi.stubGlobal('Request', LocalRequest);
  vi.stubGlobal('fetch', async (asked: string | Request, init: RequestInit) => {
    // Of the rest of the shop there is only what a test says.
    if (typeof asked !== 'string') {
      const body = rest(new URL(asked.url).pathname);
      if (body !== undefined) return new Response(JSON.stringify(body), { status: 200 });
      return new Response(JSON.stringify({ detail: 'Not here', status: 404 }), { status: 404 });
    }
    const { id, command } = JSON.parse(init.body as string) as { id: string; command: Command };
    sent.push(command);
    const refused = t.try(command, person);
    if (refused) return new Response(JSON.stringify({ detail: refused, status: 422 }), { status: 422 });
    return new Response(JSON.stringify({ ...t.job.events.at(-1), id }), { status: 200 });
  });
  const store = configureStore({
    reducer: {
      [api.reducerPath]: api.reducer,
      preferences: preferencesReducer,
      outbox: outboxReducer,
      photoQueue: photoQueueReducer,
    },
    middleware: (standard) =>
      standard({ serializableCheck: false, immutableCheck: false }).concat(api.middleware),
  });
  const detail: JobDetail = {
    number: 781,
    unit: {
      id: t.job.unitId,
      name: 'Tern 418',
      kind: 'tractor',
      owner: { id: t.job.unitId, name: 'Tern & Hollow Haulage' },
      axles: [
        { number: 1, role: 'steer', wheels: 'single' },
        { number: 2, role: 'drive', wheels: 'dual' },
      ],
    },
    before: [],
    releasedBefore: [],
    events: [...t.job.events],
  };
  await store.dispatch(jobsApi.util.upsertQueryData('job', t.job.id, detail));
  await store.dispatch(
    peopleApi.util.upsertQueryData('session', undefined, sessionOf({ ...person, login: 'someone' })),
  );
  await store.dispatch(peopleApi.util.upsertQueryData('peopleWithPin', undefined, []));
  const listed = tools.map((tool) => ({
    tool,
    changedAt: t.job.opened.at,
    changedBy: 'Sup',
    version: 1,
    holder: null,
    recalls: [],
  }));
  await store.dispatch(toolsApi.util.upsertQueryData('tools', undefined, listed));
  render(
    <Provider store={store}>
      <MemoryRouter initialEntries={[`/jobs/${t.job.id}`]}>
        <Routes>
          <Route path="/jobs/:id" element={<JobPage />} />
        </Routes>
      </MemoryRouter>
    </Provider>,
  );
  return { sent, user: userEvent.setup() };
}

export const step = () => within(screen.getByRole('region', { name: 'Step at hand' }));
export const heading = (name: string | RegExp) => screen.findByRole('heading', { level: 2, name });

export function jobAt(stepId: string | undefined, sheetId?: string): TestJob {
  const t = new TestJob(openingOn(['2L'], sheetId));
  t.workTo('2L', stepId);
  return t;
}
