import { useState } from 'react';
import { notOfOneOwner, programCapabilities, type ProgramCapability } from '@lanternwright/core/access';
import type { Token } from '@lanternwright/contract/programs';
import { problemFields, problemText } from '../api.ts';
import { useOwnersQuery } from '../fleet/fleet-api.ts';
import { FormProblem } from '../form-problem.tsx';
import { formatDate, formatTime } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { SelectField, TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { CheckList } from './check-list.tsx';
import { useEndTokenMutation, useMakeTokenMutation, useTokensQuery } from './programs-api.ts';

/** How long a key may hold. */
const spans = { 30: '30 days', 90: '90 days', 365: 'One year' } as const;

/** Of one owner only what can be kept to their units. */
const ofOneOwner = Object.fromEntries(
  Object.entries(programCapabilities).filter(
    ([name]) => notOfOneOwner([name as ProgramCapability]).length === 0,
  ),
) as typeof programCapabilities;

function MakeKey() {
  const [make, { data, error, isLoading, reset }] = useMakeTokenMutation();
  const { data: owners = [] } = useOwnersQuery();
  const [name, setName] = useState('');
  const [ownerId, setOwnerId] = useState('');
  const [days, setDays] = useState('');
  const [chosen, setChosen] = useState<ProgramCapability[]>([]);
  const fields = problemFields(error);
  const choices = ownerId === '' || ownerId === 'all' ? programCapabilities : ofOneOwner;
  const wanted = chosen.filter((c) => c in choices);
  const save = async () => {
    const made = await make({
      name,
      capabilities: wanted,
      ownerId: ownerId === 'all' ? null : ownerId,
      days: Number(days),
    });
    if (!made.data) return;
    setName('');
    setChosen([]);
    setOwnerId('');
    setDays('');
  };
  return (
    <form
      className="flex flex-col gap-4"
      onSubmit={(e) => {
        e.preventDefault();
        void save();
      }}
      onChange={() => data && reset()}
    >
      <h3 className="text-16 font-semibold">New key</h3>
      <div className="grid gap-4 md:grid-cols-3">
        <TextField
          label="Name of the program"
          required
          value={name}
          error={fields['name']}
          onChange={(e) => setName(e.target.value)}
        />
        <SelectField
          label="Whose units it sees"
          required
          value={ownerId}
          error={fields['ownerId']}
          onChange={(e) => setOwnerId(e.target.value)}
        >
          <option value="">Choose</option>
          <option value="all">Every owner’s</option>
          {owners.map((o) => (
            <option key={o.id} value={o.id}>
              {o.name}
            </option>
          ))}
        </SelectField>
        <SelectField
          label="Valid for"
          required
          value={days}
          error={fields['days']}
          onChange={(e) => setDays(e.target.value)}
        >
          <option value="">Choose</option>
          {Object.entries(spans).map(([n, words]) => (
            <option key={n} value={n}>
              {words}
            </option>
          ))}
        </SelectField>
      </div>
      <CheckList
        legend="What it may do"
        choices={choices}
        chosen={wanted}
        error={fields['capabilities']}
        onChange={setChosen}
      />
      <FormProblem error={error} />
      {data && (
        <Note tone="good">
          <p>This is the key. It is shown once: copy it now.</p>
          <p className="figure pt-1 text-13 break-all select-all">{data.token}</p>
        </Note>
      )}
      <div>
        <Button type="submit" disabled={isLoading || wanted.length === 0}>
          Make a key
        </Button>
      </div>
    </form>
  );
}

/** Whether a key holds, in words. */
function stateOf({ endedAt, endedBy, endsAt }: Token): string {
  if (endedAt) return `Ended ${formatDate(endedAt)} by ${endedBy ?? ''}`;
  return new Date(endsAt) <= new Date() ? `Ended ${formatDate(endsAt)}` : `Valid until ${formatDate(endsAt)}`;
}

function KeyLine({ token }: { token: Token }) {
  const [end, { isLoading, error }] = useEndTokenMutation();
  return (
    <li className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1 border-b border-rule py-2 text-14">
      <div className="min-w-0 flex-1 basis-80">
        <p>
          <b className={token.endedAt ? 'text-muted line-through' : ''}>{token.name}</b>
          <span className="text-muted">
            {' · '}
            {token.owner ? `Units of ${token.owner.name}` : 'Every owner’s units'}
          </span>
        </p>
        <p>{token.capabilities.map((c) => programCapabilities[c]).join(' · ')}</p>
        <p className="text-13 text-muted">
          {stateOf(token)} · Made {formatDate(token.madeAt)} by {token.madeBy} ·{' '}
          {token.lastUsedAt ? `Last used ${formatTime(token.lastUsedAt)}` : 'Never used'}
        </p>
        {error && <p className="text-13 text-rust">{problemText(error)}</p>}
      </div>
      {!token.endedAt && (
        <Button weight="grave" disabled={isLoading} onClick={() => void end(token.id)}>
          End this key
        </Button>
      )}
    </li>
  );
}

/** Keys with which programs come in. */
export function KeysSection() {
  const { data, error } = useTokensQuery();
  return (
    <section aria-label="Keys" className="flex flex-col gap-4">
      <h2 className="text-18 font-semibold">Keys for programs</h2>
      <p className="max-w-[70ch] text-14 text-muted">
        A program sends its key with every request. It can do what you choose here and nothing else. Jobs,
        releases and settings stay with people. The requests are described at{' '}
        <a className="underline" href="/api/openapi.json">
          /api/openapi.json
        </a>
        .
      </p>
      {error && <Note tone="trouble">{problemText(error)}</Note>}
      {data && data.length > 0 && (
        <ul>
          {data.map((token) => (
            <KeyLine key={token.id} token={token} />
          ))}
        </ul>
      )}
      <MakeKey />
    </section>
  );
}
