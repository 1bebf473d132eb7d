import type { ReactNode } from 'react';
import { z } from 'zod';
import { roles, roleSchema, type Role } from '@lanternwright/core/access';
import type { NewPerson } from '@lanternwright/contract/people';
import { FormProblem } from '../form-problem.tsx';
import { useOwnersQuery } from '../fleet/fleet-api.ts';
import { Button } from '../ui/button.tsx';
import { SelectField, TextField } from '../ui/field.tsx';
import { useRequestForm } from '../use-request-form.ts';

/** What each role is for, in words. */
const roleWords: Record<Role, string> = {
  supervisor: 'decides, releases, looks after people and settings',
  technician: 'opens jobs and works on them',
  storekeeper: 'sees jobs, looks after tools, receives parts',
  'owner-contact': 'sees their own units and papers, answers estimates',
  trainee: 'reckons and reads sheets, records nothing',
};

const personSchema = z.object({
  name: z.string(),
  login: z.string(),
  role: z
    .union([roleSchema, z.literal('')])
    .refine((role): role is Role => role !== '', 'Choose what they do here'),
  owners: z.array(z.string()),
});
type Draft = z.input<typeof personSchema>;

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
  const { field, register, errorOf, handleSubmit, watch } = useRequestForm(personSchema, start, error);
  const { role } = watch();
  const save = handleSubmit((person) =>
    onSave({ ...person, role: person.role, owners: person.role === 'owner-contact' ? person.owners : [] }),
  );
  return (
    <form className="flex flex-col gap-3" onSubmit={(e) => void save(e)}>
      <TextField label="Name" {...field('name')} required />
      {login === 'asked' && <TextField label="User name" {...field('login')} required />}
      <SelectField label="Role" hint={role && roleWords[role]} {...field('role')}>
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
              <input type="checkbox" className="size-5 accent-pine" value={o.id} {...register('owners')} />
              {o.name}
            </label>
          ))}
          {errorOf('owners') && <p className="text-13 text-rust">{errorOf('owners')}</p>}
        </fieldset>
      )}
      <FormProblem error={error} />
      <div className="flex flex-wrap gap-3">
        <Button type="submit" weight="main" disabled={busy}>
          {button(watch())}
        </Button>
        {children}
      </div>
    </form>
  );
}
