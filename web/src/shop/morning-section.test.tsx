import { cleanup, screen } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import type { MorningStand } from '@lanternwright/contract/shop';
import { sessionOf } from '../people/testing/session.ts';
import { refusedFor, serveWith, show, type Answer } from '../testing/fake-server.tsx';
import { MorningSection } from './morning-section.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const id = '00000000-0000-4000-8000-000000000001';
const supervisor = sessionOf({ id, name: 'I. Okonedo', login: 'okonedo', role: 'supervisor' });
const stand: MorningStand = { at: '06:30', to: ['okonedo@shop.example'], mail: true, sentAt: null };

async function open(more: Partial<MorningStand>, change: Answer) {
  const asked = serveWith((one) => (one.method === 'GET' ? { body: { ...stand, ...more } } : change(one)));
  const shown = await show(<MorningSection />, supervisor);
  await screen.findByLabelText('At');
  return { ...shown, asked };
}

it('takes addresses however they are parted, and names the one that is none, keeping what was typed', async () => {
  let refuse = true;
  const { user, asked } = await open({}, ({ body }) =>
    refuse ? refusedFor('to.1', 'is no mail address') : { body: { ...stand, ...(body as object) } },
  );
  const to = screen.getByLabelText<HTMLTextAreaElement>(/Addresses, one per line/);
  await user.clear(to);
  await user.type(to, 'a@shop.example, thistlewood;b@shop.example');
  await user.click(screen.getByRole('button', { name: 'Save who gets it' }));
  expect(await screen.findByText('thistlewood: is no mail address')).toBeTruthy();
  expect(to.value).toBe('a@shop.example, thistlewood;b@shop.example');
  refuse = false;
  await user.click(screen.getByRole('button', { name: 'Save who gets it' }));
  expect(await screen.findByText('Saved.')).toBeTruthy();
  expect(asked.filter((a) => a.method === 'PUT').at(-1)).toEqual({
    ...{ method: 'PUT', path: '/api/shop/morning' },
    body: { at: '06:30', to: ['a@shop.example', 'thistlewood', 'b@shop.example'] },
  });
});

it('is sent at once, and says why it was not', async () => {
  let full = true;
  const { user } = await open({ sentAt: '2026-11-26T06:30:00.000Z' }, () =>
    full
      ? { status: 502, body: { detail: 'The mail server did not take it: the mailbox is full' } }
      : { body: { ok: true } },
  );
  expect(screen.getByText(/It went out last 26 Nov(?: 2026)?, 06:30/)).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Send it now' }));
  expect(await screen.findByText(/the mailbox is full/)).toBeTruthy();
  full = false;
  await user.click(screen.getByRole('button', { name: 'Send it now' }));
  expect(await screen.findByText(/Sent to whom/)).toBeTruthy();
});

it('without a mail server says so, and offers nothing to send', async () => {
  await open({ mail: false }, () => ({ body: stand }));
  expect(screen.getByText(/No mail server is set/)).toBeTruthy();
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Send it now' }).disabled).toBe(true);
});
