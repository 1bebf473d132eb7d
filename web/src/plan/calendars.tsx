import { useState } from 'react';
import { calendarSubjects, type NewCalendar } from '@lanternwright/contract/plan';
import { problemText } from '../api.ts';
import { useOwnersQuery } from '../fleet/fleet-api.ts';
import { useMay, useShop } from '../people/people-api.ts';
import { formatDate } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { SelectField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useCalendarsQuery, useMakeCalendarMutation, useRevokeCalendarMutation } from './plan-api.ts';

/** Calendars that a phone or another program reads: each at an address that is its own key. */
export function Calendars({ people }: { people: readonly { id: string; name: string }[] }) {
  const able = useMay();
  const bays = useShop()?.bays ?? [];
  const { data: owners = [] } = useOwnersQuery();
  const { data: calendars = [] } = useCalendarsQuery();
  const [whose, setWhose] = useState('');
  const [make, making] = useMakeCalendarMutation();
  const [revoke, revoking] = useRevokeCalendarMutation();
  const address = making.data && new URL(making.data.address, window.location.origin).href;
  const problem = making.error ?? revoking.error;
  const [what = '', of = ''] = whose.split(' ', 2);
  const groups = [
    ['bay', bays],
    ['person', people],
    ['owner', owners],
  ] as const;
  return (
    <section aria-label="Calendars" className="flex flex-col gap-3 border-t border-rule px-5 py-4">
      <h2 className="text-16">Calendars for phones and other programs</h2>
      {able('plan-work') && (
        <div className="flex flex-wrap items-end gap-3">
          <SelectField label="Whose" value={whose} onChange={(e) => setWhose(e.target.value)}>
            <option value="">Choose</option>
            <option value="shop">{calendarSubjects.shop}</option>
            {groups.map(([kind, list]) => (
              <optgroup key={kind} label={calendarSubjects[kind]}>
                {list.map((x) => (
                  <option key={x.id} value={`${kind} ${x.id}`}>
                    {x.name}
                  </option>
                ))}
              </optgroup>
            ))}
          </SelectField>
          <Button
            disabled={whose === '' || making.isLoading}
            onClick={() => void make({ what: what as NewCalendar['what'], of })}
          >
            Make its address
          </Button>
        </div>
      )}
      {problem && <Note tone="trouble">{problemText(problem)}</Note>}
      {address && (
        <Note tone="good">
          <p>Whoever has this address reads the calendar. It is shown once: copy it now.</p>
          <p className="figure pt-1 text-13 break-all select-all">{address}</p>
        </Note>
      )}
      <ul>
        {calendars.map((c) => (
          <li
            key={c.id}
            className="flex min-h-12 flex-wrap items-center justify-between gap-x-4 border-b border-rule text-14"
          >
            <span>
              <span className="font-semibold">{c.name}</span>{' '}
              <span className="text-13 text-muted">
                {calendarSubjects[c.what].toLowerCase()}, made {formatDate(c.madeAt)} by {c.madeBy}
              </span>
            </span>
            {able('plan-work') && (
              <Button weight="quiet" disabled={revoking.isLoading} onClick={() => void revoke(c.id)}>
                Close its address
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
