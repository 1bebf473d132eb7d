import { useEffect, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import {
  standingStates,
  UNITS_A_PAGE,
  type FleetPage as FleetAnswer,
  type UnitSummary,
  type WheelEndState,
  type WheelEndSummary,
} from '@lanternwright/contract/fleet';
import { unitKinds, type UnitKind } from '@lanternwright/core/axle-plan';
import { problemText } from '../api.ts';
import { useMay } from '../people/people-api.ts';
import { sayDate, sayMeter, sayPlay } from '../shell/words.ts';
import { AxlePlan } from '../ui/axle-plan.tsx';
import { buttonLook } from '../ui/button.tsx';
import { Pager } from '../ui/pager.tsx';
import { Note } from '../ui/problem-note.tsx';
import { StateMark, stateWords } from '../ui/state-mark.tsx';
import { useFleetQuery, useOwnersQuery, type FleetAsked } from './fleet-api.ts';
import { useReader } from '../shell/use-reader.ts';

const states: readonly WheelEndState[] = [
  'working',
  'out-of-service',
  'loose',
  'tight',
  'repeat',
  'in-band',
  'not-measured',
];

/** The wheel end one would look at first: worst state, then newest reading. */
function worstOf(unit: UnitSummary): WheelEndSummary | undefined {
  const rank = (w: WheelEndSummary) => states.indexOf(w.state);
  return [...unit.wheelEnds].sort(
    (a, b) => rank(a) - rank(b) || (b.readAt ?? '').localeCompare(a.readAt ?? ''),
  )[0];
}

function newestReading(unit: UnitSummary): WheelEndSummary | undefined {
  return unit.wheelEnds.filter((w) => w.readAt).sort((a, b) => b.readAt!.localeCompare(a.readAt!))[0];
}

function UnitRow({ unit }: { unit: UnitSummary }) {
  const reader = useReader();
  const worst = worstOf(unit);
  const last = newestReading(unit);
  const working = worst?.state === 'working';
  const trouble =
    worst && ['out-of-service', 'loose', 'tight', 'repeat'].includes(worst.state) ? worst : undefined;
  return (
    <li className={`border-b border-rule ${working ? 'bg-linear-to-r from-lamp to-transparent' : ''}`}>
      <Link
        to={`/fleet/${unit.id}`}
        className="grid min-h-[84px] grid-cols-[1fr_auto] items-center gap-x-4 gap-y-1 px-5 py-2 hover:bg-side sm:grid-cols-[150px_1fr_190px]"
      >
        <span className="min-w-0">
          <span className="block truncate text-16 font-semibold">{unit.name}</span>
          <span className="block truncate text-13 text-muted">{unitKinds[unit.kind]}</span>
          <span className="block truncate text-12 text-muted">
            {[unit.plate, sayMeter(unit.meterKm, unit.hours, reader)].filter(Boolean).join(' · ')}
          </span>
        </span>
        <span className="order-last col-span-2 min-w-0 overflow-hidden sm:order-none sm:col-span-1">
          <AxlePlan axles={unit.axles} wheelEnds={unit.wheelEnds} label={`Axle plan of ${unit.name}`} />
        </span>
        <span className="text-13">
          {working ? (
            <span className="flex items-center gap-2 font-semibold">
              <StateMark state="working" /> in a job,{' '}
              {unit.wheelEnds
                .filter((w) => w.state === 'working')
                .map((w) => w.position)
                .join(' ')}
            </span>
          ) : trouble ? (
            <span
              className={`flex items-center gap-2 font-semibold ${trouble.state === 'tight' ? 'text-blue' : 'text-rust'}`}
            >
              <StateMark state={trouble.state} /> {trouble.position} {stateWords[trouble.state]}
              {trouble.endPlayMm !== null && `, ${sayPlay(trouble.endPlayMm, reader.length)}`}
            </span>
          ) : last ? (
            <span className="flex items-center gap-2">
              <StateMark state={last.state} /> {last.position}{' '}
              <span className="figure">{sayPlay(last.endPlayMm!, reader.length)}</span>
            </span>
          ) : (
            <span className="flex items-center gap-2 text-muted">
              <StateMark state="not-measured" /> not measured
            </span>
          )}
          {last?.readAt && <span className="block pl-6 text-12 text-muted">{sayDate(last.readAt)}</span>}
        </span>
      </Link>
    </li>
  );
}

const STATES = states.map((id) => ({ id, name: stateWords[id] }));
const KINDS = (Object.entries(unitKinds) as [UnitKind, string][]).map(([id, name]) => ({ id, name }));

type Filters = Record<'owner' | 'kind' | 'state' | 'search', string>;

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
  useEffect(() => {
    if (search === filters.search) return undefined;
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

/** The fleet by owner, each unit drawn as its axle plan. */
export function FleetPage() {
  const able = useMay();
  const [params, setParams] = useSearchParams();
  const filters = filtersIn(params);
  const asked = askedBy(params);
  const { data, error } = useFleetQuery(asked);
  const go = (part: Record<string, string>) => {
    // The address is ahead of what is drawn: a second choice made at once must not undo the first.
    const now = filtersIn(new URLSearchParams(window.location.search));
    const next = Object.entries({ ...now, ...part }).filter(([, v]) => v !== '');
    setParams(Object.fromEntries(next), { replace: true });
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
              Bring in a fleet
            </Link>
          )}
          {able('add-units') && (
            <Link to="/fleet/new" className={buttonLook('main')}>
              Add a unit
            </Link>
          )}
        </div>
      </div>
      {error && (
        <div className="p-5">
          <Note tone="trouble">{problemText(error)}</Note>
        </div>
      )}
      {data && data.total !== data.fleet.units && data.total > 0 && (
        <p className="border-b border-rule px-5 py-2 text-14 font-semibold">
          {data.total === 1 ? '1 unit fits' : `${data.total.toLocaleString('en')} units fit`}
        </p>
      )}
      {data &&
        byOwner(data.units).map(({ owner, units }) => (
          <section key={owner.id} aria-label={owner.name}>
            <h2 className="border-b border-rule bg-side px-5 py-2 text-14">
              {owner.name}{' '}
              <span className="font-normal text-muted">
                {data.ofOwner[owner.id] === 1
                  ? '1 unit'
                  : `${(data.ofOwner[owner.id] ?? units.length).toLocaleString('en')} units`}
              </span>
            </h2>
            <ul className="lg:grid lg:grid-cols-2 lg:[&>li:nth-child(odd)]:border-r">
              {units.map((unit) => (
                <UnitRow key={unit.id} unit={unit} />
              ))}
            </ul>
          </section>
        ))}
      {data?.units.length === 0 && (
        <p className="px-5 py-8 text-16 text-muted">
          {data.fleet.units === 0
            ? 'No units yet. Add one, or bring a fleet in from a CSV file.'
            : 'No unit fits. Take a filter away.'}
        </p>
      )}
      {data && (
        <Pager
          page={asked.page}
          more={data.total > asked.page * UNITS_A_PAGE}
          onPage={(page) => {
            go({ page: String(page) });
            window.scrollTo(0, 0);
          }}
        />
      )}
    </main>
  );
}
