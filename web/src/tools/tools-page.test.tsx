import { configureStore } from '@reduxjs/toolkit';
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Provider } from 'react-redux';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { quantity } from '@lanternwright/core/quantity';
import type { ListedTool } from '@lanternwright/contract/tools';
import type { Tool } from '@lanternwright/core/tool';
import { peopleApi } from '../people/people-api.ts';
import { sessionOf } from '../people/testing/session.ts';
import { api } from '../api.ts';
import '../people/people-api.ts';
import { toolsApi } from './tools-api.ts';
import { LocalRequest, serveWith, show } from '../testing/fake-server.tsx';
import { CertificateForm } from './certificates.tsx';
import { RecalledRecords, ToolHolder } from './tool-care.tsx';
import { ToolField } from './tool-field.tsx';
import { ToolsPage } from './tools-page.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const wrench = (code: string, calibratedUntil: string | null): Tool => ({
  id: `00000000-0000-4000-8000-0000000000${code.slice(-2)}`,
  kind: 'torque-wrench',
  code,
  title: 'Long wrench',
  calibratedUntil,
  min: quantity(100, 'lbf-ft'),
  max: quantity(600, 'lbf-ft'),
});

/** The page over a server that takes whatever it is sent. */
async function openTools(tools: readonly Tool[], role: 'supervisor' | 'technician') {
  const sent: { method: string; url: string; body: unknown }[] = [];
  vi.stubGlobal('fetch', async (request: Request) => {
    const body: unknown = request.method === 'PUT' ? await request.json() : null;
    sent.push({ method: request.method, url: request.url, body });
    const answer = {
      ...(body as object),
      version: 1,
      changedAt: '2026-11-25T08:00:00.000Z',
      changedBy: 'Sup',
    };
    return new Response(JSON.stringify(request.method === 'GET' ? [] : answer), { status: 200 });
  });
  vi.stubGlobal('Request', LocalRequest);
  const store = configureStore({
    reducer: { [api.reducerPath]: api.reducer },
    middleware: (standard) => standard().concat(api.middleware),
  });
  const listed = tools.map((tool) => ({
    tool,
    changedAt: '2026-11-25T08:00:00.000Z',
    changedBy: 'Sup',
    version: 3,
    holder: null,
    recalls: [],
  }));
  await store.dispatch(toolsApi.util.upsertQueryData('tools', undefined, listed));
  const person = { id: wrench('TW-01', null).id, name: 'Sup', login: 'sup', role };
  await store.dispatch(peopleApi.util.upsertQueryData('session', undefined, sessionOf(person)));
  render(
    <Provider store={store}>
      <ToolsPage />
    </Provider>,
  );
  return { sent, user: userEvent.setup() };
}

const row = (code: string) => screen.getByText(code).closest('li')!;

describe('the tools page', () => {
  it('says which calibration has run out and which is not on record; a technician changes nothing', async () => {
    await openTools(
      [wrench('TW-03', '2099-03-15'), wrench('TW-04', '2020-10-31'), wrench('TW-05', null)],
      'technician',
    );
    expect(within(row('TW-03')).getByText(/in calibration until/)).toBeDefined();
    expect(within(row('TW-04')).getByText(/out of calibration since/)).toBeDefined();
    expect(within(row('TW-05')).getByText('no calibration on record')).toBeDefined();
    expect(screen.queryByRole('button', { name: 'Add a tool' })).toBeNull();
    expect(screen.queryByRole('button', { name: /^Change/ })).toBeNull();
  });

  it('adds a tool with its range as typed; what cannot be read stays with its reason', async () => {
    const { sent, user } = await openTools([], 'supervisor');
    await user.click(screen.getByRole('button', { name: 'Add a tool' }));
    await user.type(screen.getByLabelText('Code on it'), 'TW-09');
    await user.type(screen.getByLabelText('What it is'), 'Short wrench');
    await user.type(screen.getByLabelText(/^From, N/), '40');
    await user.type(screen.getByLabelText('To'), 'a lot');
    await user.click(screen.getByRole('button', { name: 'Add TW-09' }));
    expect(screen.getByText(/"a lot" is not a figure/)).toBeDefined();
    expect(sent).toEqual([]);
    await user.clear(screen.getByLabelText('To'));
    await user.type(screen.getByLabelText('To'), '250 lbf-ft');
    await user.click(screen.getByRole('button', { name: 'Add TW-09' }));
    await waitFor(() => expect(sent[0]?.method).toBe('PUT'));
    expect(sent[0]?.body).toMatchObject({
      seenVersion: 0,
      tool: {
        kind: 'torque-wrench',
        code: 'TW-09',
        calibratedUntil: null,
        min: { value: 40, unit: 'lbf-ft' },
        max: { value: 250, unit: 'lbf-ft' },
      },
    });
  });

  it('asks once more before a tool is let go', async () => {
    const { sent, user } = await openTools([wrench('TW-03', '2099-03-15')], 'supervisor');
    await user.click(screen.getByRole('button', { name: 'Retire TW-03' }));
    expect(sent).toEqual([]);
    await user.click(screen.getByRole('button', { name: 'Take TW-03 off the list' }));
    await waitFor(() =>
      expect(sent[0]).toMatchObject({ method: 'DELETE', url: expect.stringMatching(/seenVersion=3$/) }),
    );
  });

  it('a recall asks what was found and since when, and fills in neither', async () => {
    const { sent, user } = await openTools([wrench('TW-03', '2099-03-15')], 'supervisor');
    await user.click(screen.getByRole('button', { name: 'TW-03 was found out of calibration' }));
    await user.click(screen.getByRole('button', { name: 'Recall TW-03' }));
    expect(await screen.findByText('Enter the last day on which it was found good')).toBeDefined();
    expect(screen.getByText('Enter what was found')).toBeDefined();
    expect(sent.filter((s) => s.method === 'POST')).toEqual([]);
    await user.type(screen.getByLabelText('Last found good on'), '2026-11-02');
    await user.type(screen.getByLabelText('What was found'), 'Reads 12 % high');
    await user.click(screen.getByRole('button', { name: 'Recall TW-03' }));
    await waitFor(() =>
      expect(sent.find((s) => s.method === 'POST')?.url).toContain(
        `/api/tools/${wrench('TW-03', null).id}/recalled`,
      ),
    );
  });

  it('a tool is taken with one tap; one recalled names each wheel end once, the released ones first', async () => {
    const { sent, user } = await openTools([wrench('TW-03', '2099-03-15')], 'supervisor');
    await user.click(screen.getByRole('button', { name: 'Take TW-03' }));
    await waitFor(() => expect(sent.find((s) => s.method === 'POST')?.url).toMatch(/\/taken$/));
    cleanup();
    const made = (unit: string, released: boolean, text: string) => ({
      ...{ jobId: wrench('TW-01', null).id, jobNumber: 805, unit, position: '1L', by: 'S. Varga' },
      ...{ at: '2026-11-16T17:56:00.000Z', text, released },
    });
    serveWith(() => ({
      body: [
        made('Tern 404', false, '1L, Seat: 200 lbf·ft'),
        { ...made('Tern 405', true, '1R, Set: 50 lbf·ft'), position: '1R' },
        made('Tern 404', false, '1L, Set: 50 lbf·ft'),
      ],
    }));
    const tool = wrench('TW-03', null);
    const recalls = [
      { lastGood: '2026-11-01', reason: 'Reads 12 % high', at: '2026-11-27T08:00:00.000Z', by: 'Sup' },
    ];
    const listed = {
      tool,
      changedAt: '2026-11-27T08:00:00.000Z',
      changedBy: 'Sup',
      version: 2,
      holder: null,
      recalls,
    };
    const person = { id: tool.id, name: 'Sup', login: 'sup', role: 'supervisor' as const };
    await show(<RecalledRecords listed={listed} />, sessionOf(person));
    expect(await screen.findByText(/2 wheel ends were worked on with it since/)).toBeDefined();
    const ends = screen.getAllByRole('link').map((link) => link.textContent);
    expect(ends[0]).toContain('Tern 405, 1R, job 805, released');
    expect(ends[1]).toContain('Seat: 200 lbf·ft; Set: 50 lbf·ft');
  });

  it('a calibration is recorded with its certificate: what is no PDF is refused, the file goes with it', async () => {
    const tool = wrench('TW-03', null);
    const listed: ListedTool = {
      ...{
        tool,
        changedAt: '2026-11-27T08:00:00.000Z',
        changedBy: 'Sup',
        version: 2,
        holder: null,
        recalls: [],
      },
    };
    const asked = serveWith(() => ({ body: listed }));
    const person = { id: tool.id, name: 'Sup', login: 'sup', role: 'supervisor' as const };
    let done = false;
    const { user } = await show(
      <CertificateForm listed={listed} onDone={() => (done = true)} />,
      sessionOf(person),
    );
    const save = screen.getByRole('button', { name: 'Record the calibration of TW-03' });
    await user.click(save);
    expect(await screen.findByText('Choose the certificate')).toBeDefined();
    expect(screen.getByText('Enter the last day on which it is valid')).toBeDefined();
    const input = screen.getByLabelText(/^Certificate, a PDF or a JPEG/);
    fireEvent.change(input, { target: { files: [new File(['x'], 'a.txt', { type: 'text/plain' })] } });
    await user.click(save);
    expect(await screen.findByText('A PDF or a JPEG')).toBeDefined();
    fireEvent.change(input, {
      target: { files: [new File(['%PDF-1.4'], 'TW-03.pdf', { type: 'application/pdf' })] },
    });
    await user.type(screen.getByLabelText('Holds until'), '2099-01-31');
    await user.click(save);
    await waitFor(() => expect(done).toBe(true));
    const sent = asked.find((a) => a.method === 'POST')!;
    expect(sent.path).toBe(`/api/tools/${tool.id}/certificates`);
    expect(sent.body).toMatchObject({
      ...{ seenVersion: 2, name: 'TW-03.pdf', type: 'application/pdf', until: '2099-01-31' },
      file: btoa('%PDF-1.4'),
    });
  });

  it('one that nobody finds says so, and is offered at no step until it is found', async () => {
    const tool = wrench('TW-03', '2099-01-31');
    const missing = { since: '2026-11-26T08:00:00.000Z', by: 'M. Pellow' };
    const listed: ListedTool = {
      ...{
        tool,
        changedAt: '2026-11-27T08:00:00.000Z',
        changedBy: 'Sup',
        version: 2,
        holder: null,
        recalls: [],
      },
      missing,
    };
    const asked = serveWith((one) => ({ body: one.method === 'GET' ? [listed] : listed }));
    const person = { id: tool.id, name: 'Sup', login: 'sup', role: 'technician' as const };
    const { user } = await show(
      <>
        <ToolHolder listed={listed} />
        <ToolField use={{ kind: 'torque-wrench' }} code="TW-03" onChange={() => undefined} />
      </>,
      sessionOf(person),
    );
    expect(await screen.findByText(/^Missing since .*says M. Pellow/)).toBeDefined();
    expect((await screen.findAllByText(/TW-03 is missing since 26 Nov 2026/)).length).toBeGreaterThan(0);
    expect(screen.queryByRole('button', { name: 'Take TW-03' })).toBeNull();
    await user.click(screen.getByRole('button', { name: 'TW-03 is found' }));
    await waitFor(() => expect(asked.at(-1)!.path).toBe('/api/tools'));
    expect(asked.find((a) => a.method === 'POST')!.path).toBe(`/api/tools/${tool.id}/found`);
  });

  it('a socket is listed by its size, points and drive, and asks for no calibration', async () => {
    const { user, sent } = await openTools([], 'supervisor');
    await user.click(screen.getByRole('button', { name: 'Add a tool' }));
    await user.selectOptions(screen.getByLabelText('Kind'), 'Socket');
    expect(screen.queryByLabelText('In calibration until')).toBeNull();
    await user.type(screen.getByLabelText('Code on it'), 'SK-01');
    await user.type(screen.getByLabelText('What it is'), 'Bearing nut');
    await user.click(screen.getByRole('button', { name: 'Add SK-01' }));
    expect(sent.some((s) => s.method === 'PUT')).toBe(false);
    await user.type(screen.getByLabelText('Across flats'), '2 5/8 in');
    await user.selectOptions(screen.getByLabelText('Points'), '6');
    await user.click(screen.getByRole('button', { name: 'Add SK-01' }));
    expect(await screen.findByText('Choose its drive')).toBeDefined();
    await user.selectOptions(screen.getByLabelText('Drive, in'), '3/4');
    await user.click(screen.getByRole('button', { name: 'Add SK-01' }));
    await waitFor(() => expect(sent.some((s) => s.method === 'PUT')).toBe(true));
    expect(sent.find((s) => s.method === 'PUT')!.body).toMatchObject({
      tool: {
        kind: 'socket',
        points: 6,
        drive: '3/4',
        calibratedUntil: null,
        size: { value: 2.625, unit: 'in' },
      },
    });
  });
});
