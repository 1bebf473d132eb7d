import { useState } from 'react';
import { roles } from '@lanternwright/core/access';
import type { ListedPerson, SignInCode } from '@lanternwright/contract/people';
import { problemText } from '../api.ts';
import { formatTime } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { Note } from '../ui/problem-note.tsx';
import {
  useAddPersonMutation,
  useAlterPersonMutation,
  useNewCodeMutation,
  usePeopleQuery,
  usePerson,
  useSwitchOffMutation,
} from './people-api.ts';
import { DetailsForm } from './details-form.tsx';
import { PersonForm } from './person-form.tsx';

const blank = { name: '', login: '', role: '' as const, owners: [] };

/** The code with which somebody chooses their own password: shown here once, and nowhere again. */
function CodeCard({ given, onDone }: { given: SignInCode; onDone: () => void }) {
  const { person, code } = given;
  return (
    <section
      aria-label={`Code of ${person.name}`}
      className="flex flex-col gap-2 rounded-lg border border-lamp-edge bg-lamp p-4"
    >
      <h2 className="text-18">{person.name} chooses a password with this code</h2>
      <p className="figure text-30 tracking-wide">{code}</p>
      <p className="text-14">
        On the sign-in page: “I have a code”, then <span className="font-semibold">{person.login}</span> and
        the code. It holds until {person.codeUntil && formatTime(person.codeUntil)} and is shown only now.
      </p>
      <div>
        <Button onClick={onDone}>Handed over</Button>
      </div>
    </section>
  );
}

/** What can be known of somebody's way in. */
function standing(p: ListedPerson): string {
  if (p.switchedOff) return 'switched off';
  if (p.codeUntil) return `has a code until ${formatTime(p.codeUntil)}`;
  return p.lastSignIn ? `last signed in ${formatTime(p.lastSignIn)}` : 'has not signed in yet';
}

function PersonRow({ person, onCode }: { person: ListedPerson; onCode: (code: SignInCode) => void }) {
  const me = usePerson();
  const [open, setOpen] = useState<'change' | 'off' | 'code' | null>(null);
  const [alter, altering] = useAlterPersonMutation();
  const [switchOff, switching] = useSwitchOffMutation();
  const [newCode, coding] = useNewCodeMutation();
  const seen = { id: person.id, seenVersion: person.version };
  const close = () => setOpen(null);
  const error = switching.error ?? coding.error;
  const giveCode = async () => {
    const { data } = await newCode(seen);
    if (data) {
      close();
      onCode(data);
    }
  };
  const isMe = person.id === me?.id;
  return (
    <li className={`flex flex-col gap-3 border-b border-rule py-3 ${person.switchedOff ? 'text-muted' : ''}`}>
      <div className="flex flex-wrap items-center justify-between gap-x-4 gap-y-2">
        <div className="min-w-0">
          <p className="text-16 font-semibold">
            {person.name}
            {isMe && <span className="font-normal text-muted"> · you</span>}
          </p>
          <p className="text-13 text-muted">
            {roles[person.role]}
            {person.owners.length > 0 && ` for ${person.owners.map((o) => o.name).join(', ')}`} · signs in as{' '}
            {person.login} · {standing(person)}
          </p>
          {(person.telephone || person.mail) && (
            <p className="text-13">{[person.telephone, person.mail].filter(Boolean).join(' · ')}</p>
          )}
        </div>
        <div className="flex flex-wrap gap-2">
          {!person.switchedOff && <Button onClick={() => setOpen('change')}>Change</Button>}
          {!isMe && (
            <Button onClick={() => setOpen('code')}>
              {person.switchedOff ? 'Let in again' : 'New password'}
            </Button>
          )}
          {!person.switchedOff && !isMe && (
            <Button weight="grave" onClick={() => setOpen('off')}>
              Switch off
            </Button>
          )}
        </div>
      </div>
      {open === 'change' && (
        <PersonForm
          start={{ ...person, owners: person.owners.map((o) => o.id) }}
          login="kept"
          button={() => 'Save'}
          error={altering.error}
          busy={altering.isLoading}
          onSave={({ name, role, owners }) =>
            void alter({ ...seen, name, role, owners }).then(({ data }) => data && close())
          }
        >
          <Button onClick={close}>Leave it</Button>
        </PersonForm>
      )}
      {open === 'change' && <DetailsForm person={person} onDone={close} />}
      {open === 'off' && (
        <Note tone="trouble">
          <p>
            {person.name} is signed out everywhere at once and let in no more. What they recorded stays
            theirs. What still waits on a tablet of theirs is not taken until somebody takes it over.
          </p>
          <div className="flex flex-wrap gap-3 pt-3">
            <Button
              weight="grave"
              disabled={switching.isLoading}
              onClick={() => void switchOff(seen).then(({ data }) => data && close())}
            >
              Switch {person.name} off
            </Button>
            <Button onClick={close}>Leave it</Button>
          </div>
        </Note>
      )}
      {open === 'code' && (
        <Note tone="plain">
          <p>
            The password and the PIN of {person.name} are taken away, every session of theirs ends, and a code
            is shown with which they choose a new password.
          </p>
          <div className="flex flex-wrap gap-3 pt-3">
            <Button weight="main" disabled={coding.isLoading} onClick={() => void giveCode()}>
              Give {person.name} a code
            </Button>
            <Button onClick={close}>Leave it</Button>
          </div>
        </Note>
      )}
      {error !== undefined && <Note tone="trouble">{problemText(error)}</Note>}
    </li>
  );
}

/** Who works here and who looks in: for a supervisor. */
export function PeoplePage() {
  const { data = [], error: listError } = usePeopleQuery();
  const [given, setGiven] = useState<SignInCode | null>(null);
  const [added, setAdded] = useState(0);
  const [add, { isLoading, error }] = useAddPersonMutation();
  return (
    <main className="mx-auto grid w-full max-w-[1180px] gap-8 p-5 lg:grid-cols-[1fr_340px]">
      <section>
        <h1 className="pb-3 text-23">People</h1>
        {given && <CodeCard given={given} onDone={() => setGiven(null)} />}
        {listError && <Note tone="trouble">{problemText(listError)}</Note>}
        <ul>
          {data.map((p) => (
            <PersonRow key={p.id} person={p} onCode={setGiven} />
          ))}
        </ul>
      </section>
      <section className="flex flex-col gap-3">
        <h2 className="text-18">Add a person</h2>
        <PersonForm
          key={added}
          start={blank}
          login="asked"
          button={({ name }) => `Add ${name || 'this person'}`}
          error={error}
          busy={isLoading}
          onSave={(person) =>
            void add(person).then(({ data: done }) => {
              if (!done) return;
              setGiven(done);
              setAdded(added + 1);
            })
          }
        />
      </section>
    </main>
  );
}
