import { z } from 'zod';
import { roles } from '@lanternwright/core/access';
import { problemText } from '../api.ts';
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
import { useRequestForm } from '../use-request-form.ts';
import { UnitFields } from './unit-fields.tsx';

const passwordSchema = z.object({ current: z.string(), password: z.string() });

function Password() {
  const [change, { error, isLoading, isSuccess }] = useChangePasswordMutation();
  const { field, handleSubmit, reset } = useRequestForm(passwordSchema, { current: '', password: '' }, error);
  const save = handleSubmit(async (passwords) => {
    const { data } = await change(passwords);
    if (data) reset();
  });
  return (
    <form className="flex flex-col gap-3" onSubmit={(e) => void save(e)}>
      <h2 className="text-18">Password</h2>
      <TextField
        label="Password now"
        type="password"
        autoComplete="current-password"
        required
        {...field('current')}
      />
      <TextField
        label="New password"
        type="password"
        autoComplete="new-password"
        required
        hint="Ten characters or more, not a common word or row of keys"
        {...field('password')}
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

const pinFormSchema = z.object({ password: z.string(), pin: z.string() });

function Pin({ hasPin }: { hasPin: boolean }) {
  const [setPin, { error, isLoading, isSuccess }] = useSetPinMutation();
  const { field, handleSubmit, reset, watch } = useRequestForm(
    pinFormSchema,
    { password: '', pin: '' },
    error,
  );
  const { password, pin } = watch();
  const save = async (chosen: string | null) => {
    const { data } = await setPin({ password, pin: chosen });
    if (data) reset();
  };
  return (
    <form className="flex flex-col gap-3" onSubmit={(e) => void handleSubmit(() => save(pin))(e)}>
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
        {...field('password')}
      />
      <TextField
        label={hasPin ? 'New PIN' : 'PIN'}
        type="password"
        inputMode="numeric"
        autoComplete="off"
        className="figure"
        hint="Four to eight digits: no run, no repeated digits, no year"
        {...field('pin')}
      />
      <FormProblem error={error} />
      {isSuccess && !error && (
        <Note tone="good">{hasPin ? 'The PIN is saved.' : 'There is no PIN any more.'}</Note>
      )}
      <div className="flex flex-wrap gap-3">
        <Button type="submit" weight="main" disabled={isLoading || pin === ''}>
          {hasPin ? 'Change the PIN' : 'Set a PIN'}
        </Button>
        {hasPin && (
          <Button disabled={isLoading || password === ''} onClick={() => void save(null)}>
            Remove the PIN
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
