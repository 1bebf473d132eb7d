import { useState } from 'react';
import type { NewPerson } from '@lanternwright/contract/people';
import { problemFields, problemText } from '../api.ts';
import { Button } from '../ui/button.tsx';
import { SelectField, TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useAddPersonMutation, usePeopleQuery } from './people-api.ts';

const blank: NewPerson = { name: '', login: '', role: 'technician', password: '' };

/** Who works here, and adding somebody: for a supervisor. */
export function PeoplePage() {
  const { data = [], error: listError } = usePeopleQuery();
  const [draft, setDraft] = useState(blank);
  const [add, { isLoading, error, data: added }] = useAddPersonMutation();
  const fields = problemFields(error);
  const set = (part: Partial<NewPerson>) => setDraft({ ...draft, ...part });
  return (
    <main className="mx-auto grid w-full max-w-[1100px] gap-8 p-5 md:grid-cols-[1fr_360px]">
      <section>
        <h1 className="pb-3 text-23">People</h1>
        {listError && <Note tone="trouble">{problemText(listError)}</Note>}
        <ul>
          {data.map((p) => (
            <li key={p.id} className="flex min-h-12 items-center justify-between border-b border-rule">
              <span className="text-16">{p.name}</span>
              <span className="text-13 text-muted">
                {p.role}, signs in as {p.login}
              </span>
            </li>
          ))}
        </ul>
      </section>
      <form
        className="flex flex-col gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          void add(draft).then(({ data: done }) => done && setDraft(blank));
        }}
      >
        <h2 className="text-18">Add a person</h2>
        <TextField
          label="Name"
          value={draft.name}
          onChange={(e) => set({ name: e.target.value })}
          error={fields['name']}
          required
        />
        <TextField
          label="Name to sign in with"
          value={draft.login}
          onChange={(e) => set({ login: e.target.value })}
          error={fields['login']}
          required
        />
        <SelectField
          label="Role"
          value={draft.role}
          onChange={(e) => set({ role: e.target.value as NewPerson['role'] })}
        >
          <option value="technician">technician</option>
          <option value="supervisor">supervisor</option>
        </SelectField>
        <TextField
          label="First password"
          type="password"
          autoComplete="new-password"
          hint="Ten characters or more"
          value={draft.password}
          onChange={(e) => set({ password: e.target.value })}
          error={fields['password']}
          required
        />
        {error && Object.keys(fields).length === 0 && <Note tone="trouble">{problemText(error)}</Note>}
        {added && !error && <Note tone="good">{added.name} can sign in now.</Note>}
        <Button type="submit" weight="main" disabled={isLoading}>
          Add {draft.name || 'this person'}
        </Button>
      </form>
    </main>
  );
}
