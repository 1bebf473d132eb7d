import { useState } from 'react';
import { roles } from '@lanternwright/core/access';
import { problemFields, problemText } from '../api.ts';
import { FormProblem } from '../form-problem.tsx';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { useChooseUnits, useReader } from '../shell/use-reader.ts';
import { Note } from '../ui/problem-note.tsx';
import {
  useChangePasswordMutation,
  useMay,
  useSessionQuery,
  useSetPinMutation,
  useSignOutEverywhereMutation,
} from './people-api.ts';
import { UnitFields } from './unit-fields.tsx';

function Password() {
  const [current, setCurrent] = useState('');
  const [password, setPassword] = useState('');
  const [change, { error, isLoading, isSuccess }] = useChangePasswordMutation();
  const fields = problemFields(error);
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        void change({ current, password }).then(({ data }) => {
          if (!data) return;
          setCurrent('');
          setPassword('');
        });
      }}
    >
      <h2 className="text-18">Password</h2>
      <TextField
        label="Password now"
        type="password"
        autoComplete="current-password"
        required
        value={current}
        onChange={(e) => setCurrent(e.target.value)}
        error={fields['current']}
      />
      <TextField
        label="New password"
        type="password"
        autoComplete="new-password"
        required
        hint="Ten characters or more, not a common word or row of keys"
        value={password}
        onChange={(e) => setPassword(e.target.value)}
        error={fields['password']}
      />
      <FormProblem error={error} />
      {isSuccess && <Note tone="good">Changed. Every other device is signed out.</Note>}
      <div>
        <Button type="submit" weight="main" disabled={isLoading}>
          Change the password
        </Button>
      </div>
    </form>
  );
}

function Pin({ hasPin }: { hasPin: boolean }) {
  const [password, setPassword] = useState('');
  const [pin, setPin] = useState('');
  const [save, { error, isLoading, isSuccess }] = useSetPinMutation();
  const fields = problemFields(error);
  const keep = (chosen: string | null) =>
    void save({ password, pin: chosen }).then(({ data }) => {
      if (!data) return;
      setPassword('');
      setPin('');
    });
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        keep(pin);
      }}
    >
      <h2 className="text-18">PIN</h2>
      <p className="text-14 text-muted">
        With it you change in at a tablet of the shop where somebody is signed in, and sign as the second pair
        of eyes at a step. People and settings still take the password.
      </p>
      <TextField
        label="Your password"
        type="password"
        autoComplete="current-password"
        required
        value={password}
        onChange={(e) => setPassword(e.target.value)}
        error={fields['password']}
      />
      <TextField
        label={hasPin ? 'New PIN' : 'PIN'}
        type="password"
        inputMode="numeric"
        autoComplete="off"
        className="figure"
        hint="Four to eight digits, not a row"
        value={pin}
        onChange={(e) => setPin(e.target.value)}
        error={fields['pin']}
      />
      <FormProblem error={error} />
      {isSuccess && !error && (
        <Note tone="good">{hasPin ? 'The PIN is kept.' : 'There is no PIN any more.'}</Note>
      )}
      <div className="flex flex-wrap gap-3">
        <Button type="submit" weight="main" disabled={isLoading || pin === ''}>
          {hasPin ? 'Change the PIN' : 'Have a PIN'}
        </Button>
        {hasPin && (
          <Button disabled={isLoading || password === ''} onClick={() => keep(null)}>
            Have none
          </Button>
        )}
      </div>
    </form>
  );
}

function Units() {
  const units = useReader();
  const choose = useChooseUnits();
  return (
    <section className="flex flex-col gap-3">
      <h2 className="text-18">Units you read in</h2>
      <p className="text-14 text-muted">
        Wherever you sign in. A figure is recorded as it is typed, with its unit; papers of a job are in the
        shop’s units.
      </p>
      <UnitFields units={units} onChange={choose} />
    </section>
  );
}

function Everywhere() {
  const [signOut, { isLoading, error }] = useSignOutEverywhereMutation();
  return (
    <section className="flex flex-col gap-3">
      <h2 className="text-18">Signed in somewhere else</h2>
      <p className="text-14 text-muted">
        A tablet left behind, a phone that is gone: this signs you out there, and here as well. What waits on
        a device stays on it until you sign in there again.
      </p>
      {error && <Note tone="trouble">{problemText(error)}</Note>}
      <div>
        <Button weight="grave" disabled={isLoading} onClick={() => void signOut()}>
          Sign out everywhere
        </Button>
      </div>
    </section>
  );
}

/** What belongs to whoever is signed in: units, password, PIN, sessions. */
export function MyPage() {
  const { data } = useSessionQuery();
  const able = useMay();
  if (!data?.person) return null;
  const { person, hasPin, by } = data;
  return (
    <main className="mx-auto flex w-full max-w-[960px] flex-col gap-6 p-5">
      <div>
        <h1 className="text-23">{person.name}</h1>
        <p className="text-13 text-muted">
          {roles[person.role]} · signs in as {person.login}
        </p>
      </div>
      {by === 'demo' && (
        <Note tone="plain">
          The made-up people of a demo have no password: they are signed in as from the list.
        </Note>
      )}
      <Units />
      <div className="grid gap-10 md:grid-cols-2">
        {by !== 'demo' && <Password />}
        {by !== 'demo' && able('share-terminal') && <Pin hasPin={hasPin} />}
        <Everywhere />
      </div>
    </main>
  );
}
