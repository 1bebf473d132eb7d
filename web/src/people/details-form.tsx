import { useState } from 'react';
import type { ListedPerson } from '@lanternwright/contract/people';
import { problemFields } from '../api.ts';
import { FormProblem } from '../form-problem.tsx';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { useSaveDetailsMutation } from './people-api.ts';

/** How a person is reached. It stands beside the record of the shop, so it can be erased; that it was is recorded. */
export function DetailsForm({ person, onDone }: { person: ListedPerson; onDone: () => void }) {
  const [telephone, setTelephone] = useState(person.telephone);
  const [mail, setMail] = useState(person.mail);
  const [keep, { isLoading, error }] = useSaveDetailsMutation();
  const fields = problemFields(error);
  const save = (details: { telephone: string; mail: string }) =>
    void keep({ id: person.id, ...details }).then(({ data }) => data && onDone());
  const kept = person.telephone !== '' || person.mail !== '';
  return (
    <form
      aria-label={`How ${person.name} is reached`}
      className="flex flex-col gap-3 border-t border-rule pt-3"
      onSubmit={(e) => {
        e.preventDefault();
        save({ telephone, mail });
      }}
    >
      <div className="grid gap-3 sm:grid-cols-2">
        <TextField
          label="Telephone"
          type="tel"
          value={telephone}
          error={fields['telephone']}
          onChange={(e) => setTelephone(e.target.value)}
        />
        <TextField
          label="Mail"
          inputMode="email"
          value={mail}
          error={fields['mail']}
          onChange={(e) => setMail(e.target.value)}
        />
      </div>
      <p className="text-13 text-muted">
        Kept beside the record of the shop: what is erased here is gone, but for backups made before.
      </p>
      <FormProblem error={error} />
      <div className="flex flex-wrap gap-3">
        <Button type="submit" weight="main" disabled={isLoading}>
          Keep telephone and mail
        </Button>
        {kept && (
          <Button weight="grave" disabled={isLoading} onClick={() => save({ telephone: '', mail: '' })}>
            Erase them
          </Button>
        )}
      </div>
    </form>
  );
}
