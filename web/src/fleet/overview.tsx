import { ChevronRight } from 'lucide-react';
import { Link, useSearchParams } from 'react-router';
import { NEEDING_A_PAGE, UNITS_A_PAGE, type FleetOverview } from '@lanternwright/contract/fleet';
import { usePageNumber } from '../shell/use-page-number.ts';
import { buttonLook } from '../ui/button.tsx';
import { Pager } from '../ui/pager.tsx';
import { PageProblem } from '../form-problem.tsx';
import { useFleetOverviewQuery, useFleetQuery } from './fleet-api.ts';
import { countOf, UnitRow, UnitRows } from './unit-row.tsx';

/** The first page of an owner's units. */
function UnitsOf({ owner }: { owner: FleetOverview['owners'][number] }) {
  const { data, error } = useFleetQuery({ owner: owner.id, page: 1 });
  if (error) return <PageProblem error={error} />;
  if (!data) return null;
  return (
    <>
      <UnitRows>
        {data.units.map((unit) => (
          <UnitRow key={unit.id} unit={unit} />
        ))}
      </UnitRows>
      {data.total > UNITS_A_PAGE && (
        <p className="border-b border-rule px-5 py-3">
          <Link to={`/fleet?owner=${owner.id}`} className={buttonLook('plain')}>
            All {countOf(data.total)} of {owner.name}
          </Link>
        </p>
      )}
    </>
  );
}

/** An owner to be opened and closed; which are open is in the address. */
function Owner({ owner, alone }: { owner: FleetOverview['owners'][number]; alone: boolean }) {
  const [params, setParams] = useSearchParams();
  const open = alone || params.getAll('open').includes(owner.id);
  const turn = () => {
    const next = new URLSearchParams(window.location.search);
    if (open) next.delete('open', owner.id);
    else next.append('open', owner.id);
    setParams(next, { replace: true });
  };
  return (
    <section aria-label={owner.name}>
      <h2 className="border-b border-rule bg-side text-14">
        <button
          type="button"
          aria-expanded={open}
          disabled={alone}
          onClick={turn}
          className="flex min-h-12 w-full items-center gap-2 px-5 text-left enabled:hover:bg-panel"
        >
          <ChevronRight size={16} aria-hidden className={open ? 'rotate-90' : ''} />
          {owner.name}
          <span className="font-normal text-muted">
            {countOf(owner.units)}
            {owner.needing > 0 &&
              `, ${owner.needing.toLocaleString('en')} ${owner.needing === 1 ? 'needs' : 'need'} something`}
          </span>
        </button>
      </h2>
      {open && <UnitsOf owner={owner} />}
    </section>
  );
}

/** What needs something first, the gravest first, then every owner, folded. */
export function Overview() {
  const [page, turnTo] = usePageNumber();
  const { data, error } = useFleetOverviewQuery({ page });
  if (error) return <PageProblem error={error} />;
  if (!data) return null;
  if (data.fleet.units === 0)
    return (
      <p className="px-5 py-8 text-16 text-muted">
        No units yet. Add one, or bring a fleet in from a CSV file.
      </p>
    );
  return (
    <>
      <section aria-labelledby="needing">
        <h2 id="needing" className="border-b border-rule px-5 py-2 text-16">
          {data.total === 0
            ? 'No unit needs attention'
            : data.total === 1
              ? '1 unit needs something'
              : `${data.total.toLocaleString('en')} units need something`}
        </h2>
        <UnitRows>
          {data.needing.map(({ unit, followUps, due }) => (
            <UnitRow key={unit.id} withOwner {...{ unit, followUps, due }} />
          ))}
        </UnitRows>
        <Pager page={page} more={data.total > page * NEEDING_A_PAGE} onPage={turnTo} />
      </section>
      {data.owners.map((owner) => (
        <Owner key={owner.id} owner={owner} alone={data.owners.length === 1} />
      ))}
    </>
  );
}
