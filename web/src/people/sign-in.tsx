import { ChevronRight } from 'lucide-react';
import type { FormEvent, ReactNode } from 'react';
import { roles } from '@lanternwright/core/access';
import type { Person, Session } from '@lanternwright/contract/people';
import { problemFields, problemText } from '../api.ts';
import { FormProblem } from '../form-problem.tsx';
import { LanternMark } from '../shell/lantern-mark.tsx';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import {
  useBeginShopMutation,
  useFirstPersonMutation,
  useSignInAsDemoMutation,
  useSignInMutation,
  useSignInWithCodeMutation,
} from './people-api.ts';

/** Text of a form's fields, by name. */
function fieldsOf(event: FormEvent<HTMLFormElement>): Record<string, string> {
  event.preventDefault();
  return Object.fromEntries([...new FormData(event.currentTarget)].map(([k, v]) => [k, String(v)]));
}

function DemoPeople({ people }: { people: readonly Person[] }) {
  const [signInAsDemo, { isLoading, error }] = useSignInAsDemoMutation();
  return (
    <section className="flex flex-col gap-3">
      <h2 className="text-18">Who are you today</h2>
      <p className="text-muted">A shop with made-up data. Nothing here is a real unit, owner or person.</p>
      <ul className="grid gap-2 sm:grid-cols-2">
        {people.map((p) => (
          <li key={p.id}>
            <button
              type="button"
              disabled={isLoading}
              onClick={() => void signInAsDemo({ personId: p.id })}
              className="flex min-h-14 w-full items-center justify-between gap-3 rounded-lg border border-edge bg-panel px-4 text-left hover:border-lamp-edge hover:bg-lamp"
            >
              <span className="text-16 font-semibold">{p.name}</span>
              <span className="text-13 text-muted">{roles[p.role]}</span>
            </button>
          </li>
        ))}
      </ul>
      {error && <Note tone="trouble">{problemText(error)}</Note>}
    </section>
  );
}

function PasswordForm() {
  const [signIn, { isLoading, error }] = useSignInMutation();
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        const { login = '', password = '' } = fieldsOf(e);
        void signIn({ login, password });
      }}
    >
      <TextField label="User name" name="login" autoComplete="username" required />
      <TextField label="Password" name="password" type="password" autoComplete="current-password" required />
      {error && <Note tone="trouble">{problemText(error)}</Note>}
      <div>
        <Button type="submit" weight="main" disabled={isLoading}>
          Sign in
        </Button>
      </div>
    </form>
  );
}

function CodeForm() {
  const [signIn, { isLoading, error }] = useSignInWithCodeMutation();
  const fields = problemFields(error);
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        const { login = '', code = '', password = '' } = fieldsOf(e);
        void signIn({ login, code, password });
      }}
    >
      <p className="text-14 text-muted">A supervisor gave it to you. With it you choose your own password.</p>
      <TextField label="User name" name="login" autoComplete="username" required />
      <TextField
        label="Code"
        name="code"
        inputMode="numeric"
        className="figure"
        required
        error={fields['code']}
      />
      <NewPassword error={fields['password']} />
      <FormProblem error={error} />
      <div>
        <Button type="submit" weight="main" disabled={isLoading}>
          Keep this password and sign in
        </Button>
      </div>
    </form>
  );
}

function NewPassword({ error }: { error: string | undefined }) {
  return (
    <TextField
      label="New password"
      name="password"
      type="password"
      autoComplete="new-password"
      required
      hint="Ten characters or more, not a common word or row of keys"
      error={error}
    />
  );
}

/** What the first person of a shop is asked: the code that the start printed, and who they are. */
function FirstPersonFields({ fields }: { fields: Record<string, string> }) {
  return (
    <>
      <TextField
        label="Code"
        name="code"
        inputMode="numeric"
        required
        className="figure"
        hint="It was printed where Lanternwright was started"
        error={fields['code']}
      />
      <TextField label="Your name" name="name" autoComplete="name" required error={fields['name']} />
      <TextField label="User name" name="login" autoComplete="username" required error={fields['login']} />
      <NewPassword error={fields['password']} />
    </>
  );
}

function FirstPerson() {
  const [firstPerson, { isLoading, error }] = useFirstPersonMutation();
  const fields = problemFields(error);
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        const { name = '', login = '', password = '', code = '' } = fieldsOf(e);
        void firstPerson({ name, login, password, code });
      }}
    >
      <h2 className="text-18">No people added yet</h2>
      <p className="text-muted">The first person is a supervisor and adds the others.</p>
      <FirstPersonFields fields={fields} />
      <FormProblem error={error} />
      <div>
        <Button type="submit" weight="main" disabled={isLoading}>
          Open the shop
        </Button>
      </div>
    </form>
  );
}

function BeginForm() {
  const [begin, { isLoading, error }] = useBeginShopMutation();
  const fields = problemFields(error);
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        const { shop = '', name = '', login = '', password = '', code = '' } = fieldsOf(e);
        void begin({ shop, name, login, password, code });
      }}
    >
      <Note tone="trouble">
        The demo ends for good and for everybody: its units, jobs and people are set aside in the database,
        and an empty shop takes their place. You are its first person, a supervisor.
      </Note>
      <TextField label="Name of your shop" name="shop" required error={fields['shop']} />
      <FirstPersonFields fields={fields} />
      <FormProblem error={error} />
      <div>
        <Button type="submit" weight="grave" disabled={isLoading}>
          End the demo and begin
        </Button>
      </div>
    </form>
  );
}

function Folded({ title, children }: { title: string; children: ReactNode }) {
  return (
    <details className="group border-t border-rule pt-2">
      <summary className="flex min-h-12 cursor-pointer items-center gap-2 text-14 font-semibold">
        <ChevronRight size={18} aria-hidden className="group-open:rotate-90" />
        {title}
      </summary>
      <div className="pt-2 pb-3">{children}</div>
    </details>
  );
}

/** The door: demo people to choose from, or name and password, or the first person of an empty shop. */
export function SignIn({ session }: { session: Session }) {
  const demo = session.demoPeople.length > 0;
  return (
    <div className="grid min-h-dvh md:grid-cols-[minmax(280px,38%)_1fr]">
      <header className="flex flex-col justify-between gap-6 bg-band p-6 text-band-ink md:p-10">
        <div className="flex items-center gap-3">
          <LanternMark size={34} />
          <span className="text-18 font-semibold">Lanternwright</span>
        </div>
        <div className="flex flex-col gap-3">
          <h1 className="text-26">Wheel ends, set right and on record</h1>
          <p className="max-w-[42ch] text-16 opacity-85">
            From the first reading to the signed release, for every unit and every wheel end in the shop.
          </p>
        </div>
        <p className="max-w-[52ch] text-13 opacity-75">
          Follow the maker’s instructions and local rules. Safety-critical work is done or signed by a
          qualified person.
        </p>
      </header>
      <main className="flex flex-col justify-center gap-8 p-6 md:p-12">
        <div className="flex w-full max-w-[640px] flex-col gap-8">
          {session.needsFirstPerson ? (
            <FirstPerson />
          ) : (
            <>
              {demo && <DemoPeople people={session.demoPeople} />}
              {!demo && (
                <section className="flex flex-col gap-3">
                  <h2 className="text-18">Sign in</h2>
                  <PasswordForm />
                </section>
              )}
              <div>
                {demo && (
                  <Folded title="Sign in with a password">
                    <PasswordForm />
                  </Folded>
                )}
                <Folded title="I have a code">
                  <CodeForm />
                </Folded>
                {demo && (
                  <Folded title="Begin with our own shop">
                    <BeginForm />
                  </Folded>
                )}
              </div>
            </>
          )}
        </div>
      </main>
    </div>
  );
}
