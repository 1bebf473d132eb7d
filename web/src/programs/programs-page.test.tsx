import { cleanup, screen, within } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import type { Delivery, Token, Webhook } from '@lanternwright/contract/programs';
import { sessionOf } from '../people/testing/session.ts';
import { refusedFor, serveWith, show, type Answer } from '../testing/fake-server.tsx';
import { ProgramsPage } from './programs-page.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const id = '00000000-0000-4000-8000-000000000001';
const supervisor = sessionOf({ id, name: 'I. Okonedo', login: 'okonedo', role: 'supervisor' });
const at = '2026-11-26T06:30:00.000Z';
const key: Token = {
  ...{ id, name: 'Depot screen', capabilities: ['see-units'], owner: null, madeAt: at, madeBy: 'I. Okonedo' },
  ...{ endsAt: '2099-11-26T06:30:00.000Z', endedAt: null, endedBy: null, lastUsedAt: null },
};
const hook: Webhook = {
  ...{ id, name: 'Haulier', url: 'https://haulier.example/hook', events: ['release'], madeAt: at },
  ...{ madeBy: 'I. Okonedo', endedAt: null, waiting: 1, givenUp: 1, lastDeliveredAt: null },
};
const given: Delivery = {
  ...{ id, event: 'release', at, tries: 12, deliveredAt: null, givenUpAt: at, lastTryAt: at },
  ...{ status: 503, problem: 'Answered with 503' },
};

async function open(change: Answer) {
  const asked = serveWith((one) => {
    if (one.method !== 'GET') return change(one);
    if (one.path.endsWith('/tokens')) return { body: [key] };
    if (one.path.endsWith('/webhooks')) return { body: [hook] };
    if (one.path.endsWith('/deliveries')) return { body: [given] };
    return { body: [{ id, name: 'Osprey Contract Farming' }] };
  });
  const shown = await show(<ProgramsPage />, supervisor);
  await screen.findByText('Depot screen');
  return {
    ...shown,
    asked: (path: string) => asked.filter((a) => a.method !== 'GET' && a.path.endsWith(path)),
  };
}

it('makes a key of what was chosen, and shows it once', async () => {
  const { user, asked } = await open(() => ({ body: { id, token: 'lw_shown-once' } }));
  const keys = within(screen.getByRole('region', { name: 'Keys' }));
  const make = keys.getByRole('button', { name: 'Make a key' });
  expect(make).toHaveProperty('disabled', true);
  for (const box of keys.getAllByRole('checkbox')) expect(box).toHaveProperty('checked', false);
  await user.type(keys.getByLabelText('Name of the program'), 'Fuel pump');
  await user.selectOptions(keys.getByLabelText('Valid for'), '90');
  await user.click(keys.getByLabelText('Read the plan, what is due and who is booked'));
  await user.click(keys.getByLabelText('Read units and their history'));
  // Of one owner the plan is not to be had.
  await user.selectOptions(keys.getByLabelText('Whose units it sees'), 'Osprey Contract Farming');
  expect(keys.queryByLabelText('Read the plan, what is due and who is booked')).toBeNull();
  await user.click(make);
  expect(await keys.findByText('lw_shown-once')).toBeTruthy();
  expect(asked('/tokens')[0]?.body).toEqual({
    ...{ name: 'Fuel pump', capabilities: ['see-units'], ownerId: id, days: 90 },
  });
  expect(make).toHaveProperty('disabled', true);
  await user.type(keys.getByLabelText('Name of the program'), 'A');
  expect(keys.queryByText('lw_shown-once')).toBeNull();
});

it('says whether a key was used, and ends it', async () => {
  const { user, asked } = await open(() => ({ body: { id } }));
  expect(screen.getByText(/Valid until 26 Nov 2099 .* Never used/)).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'End this key' }));
  expect(asked(`/tokens/${id}/end`)).toHaveLength(1);
});

it('adds a webhook, keeps what was typed where the address is refused, and sends again what was given up', async () => {
  let refuse = true;
  const { user, asked } = await open((one) =>
    refuse && one.path.endsWith('/webhooks')
      ? refusedFor('url', 'no name or password in the address')
      : { body: { id, secret: 'whsec_shown-once' } },
  );
  const hooks = within(screen.getByRole('region', { name: 'Webhooks' }));
  expect(hooks.getByText(/1 waiting/)).toBeTruthy();
  await user.type(hooks.getByLabelText('Receiver'), 'Depot');
  await user.type(hooks.getByLabelText('Address'), 'https://depot.example/');
  await user.click(hooks.getByLabelText('A wheel end is released'));
  await user.click(hooks.getByRole('button', { name: 'Add this webhook' }));
  expect((await hooks.findAllByText('no name or password in the address')).length).toBeGreaterThan(0);
  expect(hooks.getByLabelText<HTMLInputElement>('Address').value).toBe('https://depot.example/');
  refuse = false;
  await user.click(hooks.getByRole('button', { name: 'Add this webhook' }));
  expect(await hooks.findByText('whsec_shown-once')).toBeTruthy();

  await user.click(hooks.getByRole('button', { name: 'Show the messages' }));
  expect(await hooks.findByText('Given up after 12 tries: Answered with 503')).toBeTruthy();
  await user.click(hooks.getByRole('button', { name: 'Send again' }));
  expect(asked(`/deliveries/${id}/again`)).toHaveLength(1);
});
