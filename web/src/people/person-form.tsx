import { useState, type ReactNode } from 'react';
import { roles, type Role } from '@lanternwright/core/access';
import type { NewPerson } from '@lanternwright/contract/people';
import { problemFields } from '../api.ts';
import { FormProblem } from '../form-problem.tsx';
import { useOwnersQuery } from '../fleet/fleet-api.ts';
import { Button } from '../ui/button.tsx';
import { SelectField, TextField } from '../ui/field.tsx';

/** What each role is for, in words. */
const roleWords: Record<Role, string> = {
  supervisor: 'decides, releases, looks after people and settings',
  technician: 'opens jobs and works on them',
  storekeeper: 'sees jobs, looks after tools, receives parts',
  'owner-contact': 'sees their own units and papers, answers estimates',
  trainee: 'reckons and reads sheets, records nothing',
};

type Draft = Omit<Required<NewPerson>, 'role'> & { role: Role | '' };

interface Props {
  start: Draft;
  /** A person who is there keeps the name they sign in with. */
  login: 'asked' | 'kept';
  button: (draft: Draft) => string;
  error: unknown;
  busy: boolean;
  onSave: (person: NewPerson) => void;
  children?: ReactNode;
}

/** Name, role and, for an owner's contact, the owners. No role is chosen beforehand. */
export function PersonForm({ start, login, button, error, busy, onSave, children }: Props) {
  const { data: owners = [] } = useOwnersQuery();
  const [draft, setDraft] = useState(start);
  const [asked, setAsked] = useState<string | null>(null);
  const fields = problemFields(error);
  const set = (part: Partial<Draft>) => setDraft({ ...draft, ...part });
  const { role } = draft;
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        if (role === '') return setAsked('Choose what they do here');
        setAsked(null);
        onSave({ ...draft, role, owners: role === 'owner-contact' ? draft.owners : [] });
      }}
    >
      <TextField
        label="Name"
        value={draft.name}
        onChange={(e) => set({ name: e.target.value })}
        error={fields['name']}
        required
      />
      {login === 'asked' && (
        <TextField
          label="User name"
          value={draft.login}
          onChange={(e) => set({ login: e.target.value })}
          error={fields['login']}
          required
        />
      )}
      <SelectField
        label="Role"
        value={role}
        hint={role && roleWords[role]}
        error={asked ?? fields['role']}
        onChange={(e) => set({ role: e.target.value as Role | '' })}
      >
        <option value="">Choose</option>
        {(Object.keys(roles) as Role[]).map((id) => (
          <option key={id} value={id}>
            {roles[id]}
          </option>
        ))}
      </SelectField>
      {role === 'owner-contact' && (
        <fieldset className="flex flex-col">
          <legend className="caption pb-1">Answers for</legend>
          {owners.map((o) => (
            <label key={o.id} className="flex min-h-12 items-center gap-3 text-16">
              <input
                type="checkbox"
                className="size-5 accent-pine"
                checked={draft.owners.includes(o.id)}
                onChange={(e) =>
                  set({
                    owners: e.target.checked
                      ? [...draft.owners, o.id]
                      : draft.owners.filter((id) => id !== o.id),
                  })
                }
              />
              {o.name}
            </label>
          ))}
          {fields['owners'] && <p className="text-13 text-rust">{fields['owners']}</p>}
        </fieldset>
      )}
      <FormProblem error={error} />
      <div className="flex flex-wrap gap-3">
        <Button type="submit" weight="main" disabled={busy}>
          {button(draft)}
        </Button>
        {children}
      </div>
    </form>
  );
}
