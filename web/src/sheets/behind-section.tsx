import { Link } from 'react-router';
import type { Behind } from '@lanternwright/contract/sheets';
import type { Sheet } from '@lanternwright/core/procedure';
import { problemText } from '../api.ts';
import { Button } from '../ui/button.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useBehindQuery, useCarrySheetMutation } from './sheets-api.ts';

type UnitBehind = Behind['units'][number];

/** "axle 2 by revision 1, 2 figures of its own; axle 3 by revision 1" */
const describeAxles = ({ axles }: UnitBehind) =>
  axles
    .map(({ number, revision, own }) => {
      const figures = own === 0 ? '' : `, ${own} ${own === 1 ? 'figure' : 'figures'} of its own`;
      return `axle ${number} by revision ${revision}${figures}`;
    })
    .join('; ');

/** Axles that go by an earlier revision, to be carried over on request. */
export function BehindSection({ newest }: { newest: Sheet }) {
  const { data, error } = useBehindQuery(newest.sheetId);
  const [carry, carried] = useCarrySheetMutation();
  if (error) return <Note tone="trouble">{problemText(error)}</Note>;
  if (!data || (data.total === 0 && !carried.data)) return null;
  const shown = data.units.length;
  const units = data.units.map(({ id, version }) => ({ id, seenVersion: version }));
  return (
    <section aria-labelledby="behind" className="flex flex-col gap-3 border-t border-rule pt-4">
      <h2 id="behind" className="text-18">
        {data.total === 0
          ? 'Every axle uses this revision'
          : `${data.total} ${data.total === 1 ? 'unit goes' : 'units go'} by an earlier revision`}
      </h2>
      {carried.data && (
        <Note tone={carried.data.left.length > 0 ? 'plain' : 'good'}>
          {carried.data.carried} {carried.data.carried === 1 ? 'unit was' : 'units were'} carried over.
          {carried.data.left.length > 0 &&
            (carried.data.left.length === 1
              ? ' 1 was left: it was changed meanwhile. Check it and carry it over again.'
              : ` ${carried.data.left.length} were left: they were changed meanwhile. Check them and carry them over again.`)}
        </Note>
      )}
      {carried.error && <Note tone="trouble">{problemText(carried.error)}</Note>}
      <ul className="max-h-[40vh] overflow-y-auto">
        {data.units.map((u) => (
          <li
            key={u.id}
            className="flex min-h-12 flex-wrap items-center gap-x-4 border-b border-rule text-14"
          >
            <Link to={`/fleet/${u.id}`} className="font-semibold underline underline-offset-4">
              {u.name}
            </Link>
            <span className="text-muted">{u.owner}</span>
            <span className="ml-auto text-13 text-muted">{describeAxles(u)}</span>
          </li>
        ))}
      </ul>
      {shown > 0 && (
        <div className="flex flex-wrap items-center gap-4">
          <Button
            disabled={carried.isLoading}
            onClick={() => void carry({ sheetId: newest.sheetId, to: newest.revision, units })}
          >
            Carry {shown === data.total ? '' : 'these '}
            {shown} {shown === 1 ? 'unit' : 'units'} over to revision {newest.revision}
          </Button>
          <p className="text-13 text-muted">
            Figures of their own stay, and jobs that run keep the revision they began with.
          </p>
        </div>
      )}
    </section>
  );
}
