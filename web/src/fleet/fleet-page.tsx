import { useEffect, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import {
  standingStates,
  UNITS_A_PAGE,
  type FleetPage as FleetAnswer,
  type UnitSummary,
} from '@lanternwright/contract/fleet';
import { unitKinds, type UnitKind } from '@lanternwright/core/axle-plan';
import { PageProblem } from '../form-problem.tsx';
import { useMay } from '../people/people-api.ts';
import { usePageNumber } from '../shell/use-page-number.ts';
import { Button, buttonLook } from '../ui/button.tsx';
import { Pager } from '../ui/pager.tsx';
import { StateMark, stateWords } from '../ui/state-mark.tsx';
import { useFleetOverviewQuery, useFleetQuery, useOwnersQuery, type FleetAsked } from './fleet-api.ts';
import { Overview } from './overview.tsx';
import { countOf, states, UnitRow, UnitRows } from './unit-row.tsx';

const STATES = states.map((id) => ({ id, name: stateWords[id] }));
const KINDS = (Object.entries(unitKinds) as [UnitKind, string][]).map(([id, name]) => ({ id, name }));

/** Changes what the address asks for; an empty text takes a filter away, and the page begins anew. */
type Go = (part: Record<string, string>) => void;

type Filters = Record<'owner' | 'kind' | 'state' | 'search', string>;

const NO_FILTERS: Filters = { owner: '', kind: '', state: '', search: '' };

const filtersIn = (params: URLSearchParams): Filters => ({
  owner: params.get('owner') ?? '',
  kind: params.get('kind') ?? '',
  state: params.get('state') ?? '',
  search: params.get('search') ?? '',
});

/** What the address asks the server for. */
function askedBy(params: URLSearchParams): FleetAsked {
  const given = Object.entries(filtersIn(params)).filter(([, v]) => v !== '');
  return { page: Math.max(1, Number(params.get('page')) || 1), ...Object.fromEntries(given) };
}

interface ChooseProps {
  label: string;
  all: string;
  value: string;
  options: readonly { id: string; name: string }[];
  onChoose: (id: string) => void;
}

function Choose({ label, all, value, options, onChoose }: ChooseProps) {
  return (
    <select
      aria-label={label}
      className="min-h-12 w-36 rounded-md border border-edge bg-panel px-2 text-14"
      value={value}
      onChange={(e) => onChoose(e.target.value)}
    >
      <option value="">{all}</option>
      {options.map(({ id, name }) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </select>
  );
}

/** Waits until somebody stops typing. */
const SEARCH_MS = 250;

function FilterBar({ filters, set }: { filters: Filters; set: (part: Partial<Filters>) => void }) {
  const { data: owners = [], isLoading } = useOwnersQuery();
  const [search, setSearch] = useState(filters.search);
  const [leftWith, setLeftWith] = useState<string | null>(null);
  useEffect(() => {
    // Whoever follows a link right after typing is not called back while its page is fetched.
    const leave = ({ target }: MouseEvent) => {
      if (target instanceof Element && target.closest('a')) setLeftWith(search);
    };
    document.addEventListener('click', leave, true);
    return () => document.removeEventListener('click', leave, true);
  }, [search]);
  useEffect(() => {
    if (search === filters.search || search === leftWith) return undefined;
    const later = setTimeout(() => set({ search }), SEARCH_MS);
    return () => clearTimeout(later);
  });
  return (
    <div className="flex flex-wrap items-center gap-2" role="search" aria-label="Filter the fleet">
      <input
        type="search"
        aria-label="Search the fleet"
        placeholder="Name, plate, owner"
        maxLength={80}
        className="min-h-12 w-52 rounded-md border border-edge bg-panel px-3 text-14"
        value={search}
        onChange={(e) => setSearch(e.target.value)}
      />
      {(isLoading || owners.length > 1) && (
        <Choose
          label="Owner"
          all="All owners"
          value={filters.owner}
          options={owners}
          onChoose={(owner) => set({ owner })}
        />
      )}
      <Choose
        label="Kind"
        all="All kinds"
        value={filters.kind}
        options={KINDS}
        onChoose={(kind) => set({ kind })}
      />
      <Choose
        label="State"
        all="All states"
        value={filters.state}
        options={STATES}
        onChoose={(state) => set({ state })}
      />
    </div>
  );
}

interface StandingProps {
  fleet: FleetAnswer['fleet'];
  state: string;
  choose: (state: string) => void;
}

/** How many wheel ends stand how, over the whole fleet; one is chosen to see whose. */
function Standing({ fleet, state, choose }: StandingProps) {
  return (
    <p className="text-13 text-muted">
      {fleet.units.toLocaleString('en')} units
      {standingStates.map((s) => {
        const found = fleet.standing[s];
        return found === undefined ? null : (
          <button
            key={s}
            type="button"
            onClick={() => choose(state === s ? '' : s)}
            aria-pressed={state === s}
            className={`ml-2 inline-flex min-h-8 items-center gap-1.5 rounded-md border px-2 text-13 font-semibold text-ink ${state === s ? 'border-lamp-edge bg-lamp' : 'border-edge bg-panel'}`}
          >
            <StateMark state={s} size={14} /> {found.toLocaleString('en')}{' '}
            {s === 'working' ? 'in a job' : s === 'out-of-service' ? 'out of service' : `left ${s}`}
          </button>
        );
      })}
    </p>
  );
}

/** Units one after the other, by their owner as they come. */
function byOwner(units: readonly UnitSummary[]): { owner: UnitSummary['owner']; units: UnitSummary[] }[] {
  const groups = new Map<string, { owner: UnitSummary['owner']; units: UnitSummary[] }>();
  for (const unit of units) {
    const group = groups.get(unit.owner.id);
    if (group) group.units.push(unit);
    else groups.set(unit.owner.id, { owner: unit.owner, units: [unit] });
  }
  return [...groups.values()];
}

/** What the filters let through, by owner and name. */
function Filtered({ asked, go }: { asked: FleetAsked; go: Go }) {
  const { data, error } = useFleetQuery(asked);
  const [, turnTo] = usePageNumber();
  if (error) return <PageProblem error={error} />;
  if (!data) return null;
  return (
    <>
      <p className="flex flex-wrap items-center gap-3 border-b border-rule px-5 py-2 text-14 font-semibold">
        {data.total === 1 ? '1 unit fits' : `${data.total.toLocaleString('en')} units fit`}
        <Button onClick={() => go(NO_FILTERS)}>Clear the filters</Button>
      </p>
      {byOwner(data.units).map(({ owner, units }) => (
        <section key={owner.id} aria-label={owner.name}>
          <h2 className="border-b border-rule bg-side px-5 py-2 text-14">
            {owner.name}{' '}
            <span className="font-normal text-muted">{countOf(data.ofOwner[owner.id] ?? units.length)}</span>
          </h2>
          <UnitRows>
            {units.map((unit) => (
              <UnitRow key={unit.id} unit={unit} />
            ))}
          </UnitRows>
        </section>
      ))}
      <Pager page={asked.page} more={data.total > asked.page * UNITS_A_PAGE} onPage={turnTo} />
    </>
  );
}

/** The fleet: what needs something first, then the units of each owner, each drawn as its axle plan. */
export function FleetPage() {
  const able = useMay();
  const [params, setParams] = useSearchParams();
  const filters = filtersIn(params);
  const asked = askedBy(params);
  const filtered = Object.values(filters).some((v) => v !== '');
  // The same query as what is shown below makes: it is asked once.
  const overview = useFleetOverviewQuery({ page: asked.page }, { skip: filtered });
  const list = useFleetQuery(asked, { skip: !filtered });
  const { data } = filtered ? list : overview;
  const go: Go = (part) => {
    // The address is ahead of what is drawn: a second choice made at once must not undo the first.
    const next = new URLSearchParams(window.location.search);
    next.delete('page');
    for (const [name, value] of Object.entries(part))
      if (value === '') next.delete(name);
      else next.set(name, value);
    setParams(next, { replace: true });
  };
  return (
    <main>
      <div className="flex flex-wrap items-center justify-between gap-3 border-b border-rule px-5 py-4">
        {/* A line of its own: what it counts comes later and moves nothing. */}
        <div className="flex min-h-11 w-full flex-wrap items-center gap-x-5">
          <h1 className="text-23">Fleet</h1>
          {data && <Standing fleet={data.fleet} state={filters.state} choose={(state) => go({ state })} />}
        </div>
        <FilterBar filters={filters} set={go} />
        <div className="flex flex-wrap gap-2">
          {able('see-sheets') && (
            <Link to="/fleet/sheets" className={buttonLook('plain')}>
              Sheets
            </Link>
          )}
          {able('see-tools') && (
            <Link to="/fleet/tools" className={buttonLook('plain')}>
              Tools
            </Link>
          )}
          <a href="/api/exchange/fleet.csv" download className={buttonLook('plain')}>
            Export
          </a>
          {able('change-fleet') && (
            <Link to="/fleet/meters" className={buttonLook('plain')}>
              Readings
            </Link>
          )}
          {able('change-fleet') && (
            <Link to="/fleet/list" className={buttonLook('plain')}>
              Import a fleet
            </Link>
          )}
          {able('add-units') && (
            <Link to="/fleet/new" className={buttonLook('main')}>
              Add a unit
            </Link>
          )}
        </div>
      </div>
      {filtered ? <Filtered asked={asked} go={go} /> : <Overview />}
    </main>
  );
}
