import { configureStore } from '@reduxjs/toolkit';
import { cleanup, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Provider } from 'react-redux';
import { MemoryRouter, Route, Routes } from 'react-router';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { JobDetail } from '@lanternwright/contract/jobs';
import type { Actor, Command } from '@lanternwright/core/traveller';
import { openingOn, supervisor, technician, TestJob } from '../../../core/src/traveller/testing/work.ts';
import { api } from '../api.ts';
import '../people/people-api.ts';
import { preferencesReducer } from '../shell/preferences.ts';
import { JobPage } from './job-page.tsx';
import { jobsApi } from './jobs-api.ts';
import { outboxReducer } from './outbox.ts';

/** A job page over a server of one job: commands go to the same `decide`, by the person who is signed in. */
async function openPage(t: TestJob, person: Actor = technician) {
  const sent: Command[] = [];
  vi.stubGlobal('fetch', async (_url: string, init: RequestInit) => {
    const { id, command } = JSON.parse(init.body as string) as { id: string; command: Command };
    sent.push(command);
    const refused = t.try(command, person);
    if (refused) return new Response(JSON.stringify({ detail: refused, status: 422 }), { status: 422 });
    return new Response(JSON.stringify({ ...t.job.events.at(-1), id }), { status: 200 });
  });
  const store = configureStore({
    reducer: { [api.reducerPath]: api.reducer, preferences: preferencesReducer, outbox: outboxReducer },
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
        { role: 'steer', wheels: 'single' },
        { role: 'drive', wheels: 'dual' },
      ],
    },
    before: [],
    events: [...t.job.events],
  };
  const session = { person: { ...person, login: 'someone' }, demoPeople: [], needsFirstPerson: false };
  await store.dispatch(jobsApi.util.upsertQueryData('job', t.job.id, detail));
  await store.dispatch(
    api.util.upsertQueryData('session' as never, undefined as never, session as never) as never,
  );
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

const step = () => within(screen.getByRole('region', { name: 'Step at hand' }));
const heading = (name: string | RegExp) => screen.findByRole('heading', { level: 2, name });

function jobAt(stepId: string | undefined, sheetId?: string): TestJob {
  const t = new TestJob(openingOn(['2L'], sheetId));
  t.workTo('2L', stepId);
  return t;
}

beforeEach(() => {
  localStorage.clear();
  window.scrollTo = () => undefined;
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

describe('torque', () => {
  it('wants the tool, takes the other unit, and remembers the wrench', async () => {
    const { sent, user } = await openPage(jobAt('seat'));
    await heading('Seat the bearings');
    await user.click(step().getByRole('button', { name: 'Record the torque' }));
    expect(step().getByText('Which tool')).toBeDefined();
    await user.clear(step().getByLabelText(/^Reached/));
    await user.type(step().getByLabelText(/^Reached/), '271 Nm');
    await user.type(step().getByLabelText('Torque wrench'), 'TW-03');
    await user.click(step().getByRole('button', { name: 'Record the torque' }));
    await heading('Rotate the wheel');
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]).toMatchObject({
      data: { kind: 'torque', torque: { value: 271, unit: 'Nm' }, tool: 'TW-03', rounds: 1 },
    });
    expect(localStorage.getItem('lanternwright.tool.seatTorque')).toBe('TW-03');
  });

  it('off the figure asks why before it records', async () => {
    const { sent, user } = await openPage(jobAt('seat'));
    await user.clear(await step().findByLabelText(/^Reached/));
    await user.type(step().getByLabelText(/^Reached/), '150');
    await user.type(step().getByLabelText('Torque wrench'), 'TW-03');
    await user.click(step().getByRole('button', { name: 'Record the torque' }));
    expect(step().getByText('Say why')).toBeDefined();
    expect(sent).toHaveLength(0);
    await user.type(step().getByLabelText(/off the sheet/), 'worn thread');
    await user.click(step().getByRole('button', { name: 'Record the torque' }));
    await waitFor(() => expect(sent[0]).toMatchObject({ data: { note: 'worn thread' } }));
  });
});

describe('turns and choices', () => {
  it('draws the back-off and records it as the sheet has it', async () => {
    const { sent, user } = await openPage(jobAt('back-off'));
    expect(await step().findByRole('img', { name: 'Back off 1/4 turn, 90 degrees' })).toBeDefined();
    await user.click(step().getByRole('button', { name: 'Backed off 1/4 turn' }));
    await heading('Locking washer on');
    await user.click(step().getByRole('button', { name: 'Washer turned over' }));
    await heading('Jam nut');
    await waitFor(() =>
      expect(sent.map((c) => c.kind === 'step-recorded' && c.data)).toEqual([
        { kind: 'turn', turns: -0.25 },
        { kind: 'choose', option: 'turned-over' },
      ]),
    );
  });

  it('an inspection that says no wants words', async () => {
    const { sent, user } = await openPage(jobAt('cup-home'));
    await user.click(await step().findByRole('button', { name: 'No' }));
    const record = step().getByRole('button', { name: 'Record what was found' });
    expect(record).toHaveProperty('disabled', true);
    await user.type(step().getByLabelText('What was found'), 'feeler goes in');
    await user.click(record);
    await waitFor(() =>
      expect(sent[0]).toMatchObject({ data: { kind: 'inspect', ok: false, note: 'feeler goes in' } }),
    );
  });

  it('the lock wants its method, and a skipped step its reason', async () => {
    const { sent, user } = await openPage(jobAt('lock'));
    await heading('Lock the nut');
    expect(step().getByRole('button', { name: 'Record the lock' })).toHaveProperty('disabled', true);
    await user.click(step().getByRole('button', { name: 'Skip this step' }));
    expect(step().getByRole('button', { name: 'Skip it' })).toHaveProperty('disabled', true);
    await user.click(step().getByRole('button', { name: 'Do it after all' }));
    await user.click(step().getByLabelText('Two tangs bent'));
    await user.type(step().getByLabelText('Checked by'), 'I. Okonedo');
    await user.click(step().getByRole('button', { name: 'Record the lock' }));
    await waitFor(() =>
      expect(sent[0]).toMatchObject({ data: { kind: 'lock', method: 'two-tangs', checkedBy: 'I. Okonedo' } }),
    );
  });
});

describe('measuring', () => {
  const cycle = async (user: ReturnType<typeof userEvent.setup>, push: string, pull: string) => {
    await user.type(step().getByLabelText(/^Pushed in/), `${push}{Enter}`);
    await user.type(step().getByLabelText(/^Pulled out/), `${pull}{Enter}`);
  };

  it('takes cycles by key alone, says which way and how far, and goes back with the plan', async () => {
    const { sent, user } = await openPage(jobAt('end-play'));
    await heading('Measure end play');
    await cycle(user, '0', '0.0085');
    expect(step().getByText('2 more cycles')).toBeDefined();
    await cycle(user, '0', '8.1 thou');
    await cycle(user, '0', '0.0083');
    expect(await step().findByText('Loose by 0.0033')).toBeDefined();
    await user.click(step().getByRole('button', { name: 'Go back to Adjust, tighten 1/16 turn' }));
    await heading('Jam nut and washer off');
    await waitFor(() => expect(sent).toHaveLength(4));
    expect(sent[3]).toMatchObject({ kind: 'adjust-reopened', from: 'setting', turns: 1 / 16 });
  });

  it('keeps what was typed when it is no figure, and says so at the field', async () => {
    const { sent, user } = await openPage(jobAt('end-play'));
    await heading('Measure end play');
    await user.type(step().getByLabelText(/^Pushed in/), 'three{Enter}');
    expect(step().getByText('"three" is not a figure')).toBeDefined();
    expect(step().getByLabelText(/^Pushed in/)).toHaveProperty('value', 'three');
    expect(sent).toHaveLength(0);
  });

  it('a caravan may be accepted by feel, recorded as feel', async () => {
    const { sent, user } = await openPage(jobAt('end-play', 'd-towed'));
    await user.click(await step().findByRole('button', { name: 'No movement felt, spins freely' }));
    await waitFor(() => expect(sent[0]).toMatchObject({ data: { kind: 'measure', by: 'feel' } }));
  });
});

describe('looking back and releasing', () => {
  it('shows what a stage holds and strikes a record out with a reason', async () => {
    const { sent, user } = await openPage(jobAt('end-play'));
    await user.click(await screen.findByRole('button', { name: 'Adjust, 2L: done' }));
    await heading('Adjust');
    const line = step().getByText('Jam nut').closest('li')!;
    await user.click(within(line).getByRole('button', { name: 'Strike out' }));
    await user.click(within(line).getByRole('button', { name: 'Strike out this record' }));
    expect(within(line).getByText('Say why')).toBeDefined();
    await user.type(within(line).getByLabelText('Why it is wrong'), 'wrong wrench');
    await user.click(within(line).getByRole('button', { name: 'Strike out this record' }));
    await heading('Jam nut');
    expect(sent[0]).toMatchObject({ kind: 'correction', reason: 'wrong wrench', replacement: null });
  });

  it('a technician is told who releases; a supervisor releases and the retorque opens', async () => {
    await openPage(jobAt(undefined));
    expect(await step().findByText(/A supervisor releases 2L/)).toBeDefined();
    cleanup();
    const { user } = await openPage(jobAt(undefined), supervisor);
    await user.click(await step().findByRole('button', { name: 'Release 2L' }));
    expect(await step().findByText(/Released by Sup/)).toBeDefined();
    expect(step().getByText(/Retorque due between 611,320 km and 611,400 km/)).toBeDefined();
    await user.click(step().getByRole('button', { name: 'Record the retorque of 2L' }));
    expect(step().getByText('Which torque wrench')).toBeDefined();
  });

  it('what stands against a release is listed, and the override wants a reason', async () => {
    const t = new TestJob(openingOn(['2L']));
    t.workTo('2L', 'lock');
    t.do({
      kind: 'step-skipped',
      position: '2L',
      stage: 'lock-and-fill',
      stepId: 'lock',
      round: 1,
      reason: 'no washer',
    });
    t.workTo('2L');
    const { user } = await openPage(t, supervisor);
    expect(await step().findByText('Lock and fill, “Lock the nut” was skipped: no washer')).toBeDefined();
    const release = step().getByRole('button', { name: 'Release 2L in spite of this' });
    expect(release).toHaveProperty('disabled', true);
    await user.type(step().getByLabelText(/Your reason/), 'needed tonight');
    await user.click(release);
    expect(await step().findByText('Reason: needed tonight')).toBeDefined();
  });
});
