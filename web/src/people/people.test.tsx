import { cleanup, screen, waitFor, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { ListedPerson } from '@lanternwright/contract/people';
import { metricReader, usualReader } from '@lanternwright/core/quantity';
import { refusedFor, serveWith, show, type Answer, type Asked } from '../testing/fake-server.tsx';
import { ChangePerson } from './change-person.tsx';
import { MyPage } from './my-page.tsx';
import { PeoplePage } from './people-page.tsx';
import { SignIn } from './sign-in.tsx';
import { sessionOf } from './testing/session.ts';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const sup = { id: id(1), name: 'I. Okonedo', login: 'okonedo', role: 'supervisor' as const };
const listed = (n: number, more: Partial<ListedPerson>): ListedPerson => ({
  id: id(n),
  name: `Person ${n}`,
  login: `person${n}`,
  role: 'technician',
  owners: [],
  switchedOff: false,
  lastSignIn: null,
  telephone: '',
  mail: '',
  version: 2,
  codeUntil: null,
  ...more,
});
const tern = { id: id(90), name: 'Tern & Hollow Haulage' };
const people = [
  listed(1, { ...sup, lastSignIn: '2026-11-26T07:30:00.000Z' }),
  listed(2, { name: 'M. Pellow' }),
  listed(3, {
    name: 'E. Tern',
    role: 'owner-contact',
    owners: [tern],
    codeUntil: '2026-11-29T07:30:00.000Z',
  }),
  listed(4, { name: 'Gone', switchedOff: true }),
];

const server =
  (more: Answer = () => ({ body: {} })): Answer =>
  (asked) => {
    if (asked.method !== 'GET') return more(asked);
    if (asked.path === '/api/fleet/owners') return { body: [tern] };
    if (asked.path === '/api/people/with-pin')
      return {
        body: [
          { id: id(1), name: sup.name },
          { id: id(2), name: 'M. Pellow' },
        ],
      };
    return { body: asked.path === '/api/people' ? people : [] };
  };
const changes = (asked: Asked[]) => asked.filter((a) => a.method !== 'GET');

describe('people', () => {
  it('shows who they are, how they come in, and no way to switch oneself off', async () => {
    serveWith(server());
    await show(<PeoplePage />, sessionOf(sup));
    const row = (name: string) => screen.getByText(name).closest('li')!;
    await screen.findByText('M. Pellow');
    expect(row('I. Okonedo').textContent).toMatch(/you.*supervisor.*last signed in 26 Nov(?: 2026)?, 07:30/);
    expect(within(row('I. Okonedo')).queryByRole('button', { name: 'Switch off' })).toBeNull();
    expect(row('M. Pellow').textContent).toMatch(/has not signed in yet/);
    expect(row('E. Tern').textContent).toMatch(
      /owner’s contact for Tern & Hollow Haulage.*has a code until 29 Nov/,
    );
    expect(within(row('Gone')).getByRole('button', { name: 'Let in again' })).toBeTruthy();
  });

  it('adds one only with a role that was chosen, and shows the code once', async () => {
    const code = {
      person: listed(9, { name: 'N. Comer', login: 'comer', codeUntil: '2026-11-29T07:30:00.000Z' }),
      code: '4711-0815',
    };
    let taken = true;
    const asked = serveWith(
      server(() => (taken ? refusedFor('login', 'The name comer is taken') : { body: code })),
    );
    const { user } = await show(<PeoplePage />, sessionOf(sup));
    await user.type(screen.getByLabelText('Name'), 'N. Comer');
    await user.type(screen.getByLabelText('User name'), 'comer');
    await user.click(screen.getByRole('button', { name: 'Add N. Comer' }));
    expect(screen.getByText('Choose what they do here')).toBeTruthy();
    expect(changes(asked)).toEqual([]);
    await user.selectOptions(screen.getByLabelText('Role'), 'owner-contact');
    await user.click(await screen.findByLabelText(tern.name));
    await user.click(screen.getByRole('button', { name: 'Add N. Comer' }));
    expect(await screen.findByText('The name comer is taken')).toBeTruthy();
    taken = false;
    await user.click(screen.getByRole('button', { name: 'Add N. Comer' }));
    const card = await screen.findByRole('region', { name: 'Code of N. Comer' });
    expect(card.textContent).toMatch(/4711-0815.*comer/);
    expect(changes(asked).at(-1)!.body).toEqual({
      name: 'N. Comer',
      login: 'comer',
      role: 'owner-contact',
      owners: [tern.id],
    });
    await user.click(within(card).getByRole('button', { name: 'Handed over' }));
    expect(screen.queryByText('4711-0815')).toBeNull();
  });

  it('switches nobody off by one tap, and gives no code by one', async () => {
    const asked = serveWith(server(() => ({ body: people[1] })));
    const { user } = await show(<PeoplePage />, sessionOf(sup));
    const row = (await screen.findByText('M. Pellow')).closest('li')!;
    await user.click(within(row).getByRole('button', { name: 'Switch off' }));
    expect(row.textContent).toMatch(/signed out everywhere at once/);
    await user.click(within(row).getByRole('button', { name: 'Leave it' }));
    await user.click(within(row).getByRole('button', { name: 'New password' }));
    expect(changes(asked)).toEqual([]);
    await user.click(within(row).getByRole('button', { name: 'Switch off' }));
    await user.click(within(row).getByRole('button', { name: 'Switch M. Pellow off' }));
    await waitFor(() => expect(changes(asked)).toMatchObject([{ path: `/api/people/${id(2)}/off` }]));
  });

  it('changes a role and says why it cannot be', async () => {
    const asked = serveWith(
      server(() => refusedFor('role', 'This is the last supervisor: make somebody else one first')),
    );
    const { user } = await show(<PeoplePage />, sessionOf(sup));
    const row = (await screen.findByText('I. Okonedo')).closest('li')!;
    await user.click(within(row).getByRole('button', { name: 'Change' }));
    await user.selectOptions(within(row).getByLabelText('Role'), 'trainee');
    await user.click(within(row).getByRole('button', { name: 'Save' }));
    expect(await within(row).findByText(/last supervisor/)).toBeTruthy();
    expect(changes(asked)).toMatchObject([{ method: 'PUT', body: { role: 'trainee', owners: [] } }]);
  });
});

describe('the units somebody reads in', () => {
  it('change one by one or all at once, here at once and on the server', async () => {
    let units = usualReader;
    const asked = serveWith(({ method, body }) => {
      if (method === 'PUT') units = body as typeof units;
      return { body: method === 'PUT' ? { ok: true } : sessionOf(sup, { units }) };
    });
    const { user, store } = await show(<MyPage />, sessionOf(sup));
    await user.selectOptions(screen.getByLabelText('Distances'), 'Miles');
    expect(store.getState().preferences.units).toEqual({ ...usualReader, distance: 'mi' });
    await user.click(screen.getByRole('button', { name: 'All metric' }));
    expect((screen.getByLabelText('Torque') as HTMLSelectElement).value).toBe('Nm');
    await waitFor(() =>
      expect(changes(asked).map((c) => [c.path, c.body])).toEqual([
        ['/api/people/me/units', { ...usualReader, distance: 'mi' }],
        ['/api/people/me/units', metricReader],
      ]),
    );
  });
});

describe('one’s own page', () => {
  it('changes the password and the PIN with the password, and says which was wrong', async () => {
    const asked = serveWith(
      server(({ path }) =>
        path.endsWith('/password')
          ? refusedFor('current', 'This is not your password')
          : { body: { ok: true } },
      ),
    );
    const { user } = await show(<MyPage />, sessionOf(sup));
    await user.type(screen.getByLabelText('Password now'), 'wrong');
    await user.type(screen.getByLabelText('New password'), 'four wet bearings');
    await user.click(screen.getByRole('button', { name: 'Change the password' }));
    expect(await screen.findByText('This is not your password')).toBeTruthy();
    await user.type(screen.getByLabelText('Your password'), 'mine it is');
    await user.type(screen.getByLabelText('PIN'), '2580');
    await user.click(screen.getByRole('button', { name: 'Set a PIN' }));
    await waitFor(() => expect(changes(asked).at(-1)?.body).toEqual({ password: 'mine it is', pin: '2580' }));
  });

  it('has no password and no PIN for the made-up people of a demo, and no PIN for an owner’s contact', async () => {
    serveWith(server());
    await show(<MyPage />, sessionOf(sup, { by: 'demo' }));
    expect(screen.queryByLabelText('Password now')).toBeNull();
    cleanup();
    await show(<MyPage />, sessionOf({ ...sup, role: 'owner-contact' }));
    expect(screen.getByLabelText('Password now')).toBeTruthy();
    expect(screen.queryByLabelText('PIN')).toBeNull();
  });
});

describe('a change of person', () => {
  it('shows others with a PIN, hides what is typed, and empties it when it was wrong', async () => {
    const asked = serveWith(server(() => refusedFor('pin', 'The PIN is wrong', 401)));
    const { user } = await show(<ChangePerson onClose={() => undefined} />, sessionOf(sup));
    expect(await screen.findByRole('button', { name: 'M. Pellow' })).toBeTruthy();
    expect(screen.queryByRole('button', { name: sup.name })).toBeNull();
    await user.click(screen.getByRole('button', { name: 'M. Pellow' }));
    const go = () => screen.getByRole('button', { name: 'Change to M. Pellow' });
    for (const key of ['2', '5', '8']) await user.click(screen.getByRole('button', { name: key }));
    expect(go().hasAttribute('disabled')).toBe(true);
    await user.click(screen.getByRole('button', { name: '9' }));
    await user.click(screen.getByRole('button', { name: 'Back' }));
    await user.click(screen.getByRole('button', { name: '0' }));
    expect(screen.getByLabelText('4 digits typed').textContent).toBe('••••');
    await user.click(go());
    expect(await screen.findByText('The PIN is wrong')).toBeTruthy();
    expect(changes(asked)).toMatchObject([{ body: { personId: id(2), pin: '2580' } }]);
    expect(screen.getByLabelText('0 digits typed')).toBeTruthy();
  });
});

describe('the door', () => {
  const door = (more: object) => ({ ...sessionOf(sup), person: null, by: null, ...more });

  it('begins with one’s own shop by its code, and says what that ends', async () => {
    const asked = serveWith(server(() => refusedFor('code', 'The code is another one', 403)));
    const session = door({ demoPeople: [sup] });
    const { user } = await show(<SignIn session={session} />, session);
    await user.click(screen.getByText('Begin with our own shop'));
    const form = screen.getByText(/The demo ends for good/).closest('form')!;
    for (const [label, text] of [
      ['Name of your shop', 'Own works'],
      ['Code', '1111-1111'],
      ['Your name', 'A. Founder'],
      ['User name', 'founder'],
      ['New password', 'four wet bearings'],
    ] as const)
      await user.type(within(form).getByLabelText(label), text);
    await user.click(within(form).getByRole('button', { name: 'End the demo and begin' }));
    expect(await within(form).findByText('The code is another one')).toBeTruthy();
    expect(changes(asked)).toMatchObject([
      { path: '/api/shop/begin', body: { shop: 'Own works', code: '1111-1111', login: 'founder' } },
    ]);
  });

  it('is not a way to begin anew in a shop that is nobody’s demo', async () => {
    serveWith(server());
    const session = door({});
    await show(<SignIn session={session} />, session);
    expect(screen.queryByText('Begin with our own shop')).toBeNull();
    expect(screen.getByText('I have a code')).toBeTruthy();
  });
});

describe('how people are reached', () => {
  it('is kept and erased beside the record, with what is wrong beside its field', async () => {
    let mail = 'p@shop.example';
    const asked = serveWith(({ method, path, body }) => {
      if (method === 'PUT' && path.endsWith('/details')) {
        if ((body as { mail: string }).mail === 'nobody') return refusedFor('mail', 'must be a mail address');
        mail = (body as { mail: string }).mail;
        return { body: listed(2, { mail }) };
      }
      return { body: [listed(2, { mail })] };
    });
    const { user } = await show(<PeoplePage />, sessionOf(sup));
    await user.click(await screen.findByRole('button', { name: 'Change' }));
    const form = within(screen.getByRole('form', { name: 'How Person 2 is reached' }));
    await user.clear(form.getByLabelText('Mail'));
    await user.type(form.getByLabelText('Mail'), 'nobody');
    await user.click(form.getByRole('button', { name: 'Save telephone and mail' }));
    expect(await form.findByText('must be a mail address')).toBeTruthy();
    await user.click(form.getByRole('button', { name: 'Erase them' }));
    await waitFor(() =>
      expect(asked.findLast((a) => a.method === 'PUT')?.body).toEqual({ telephone: '', mail: '' }),
    );
  });
});
