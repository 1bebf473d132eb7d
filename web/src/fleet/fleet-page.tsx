import { useMemo } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { UnitSummary, WheelEndState, WheelEndSummary } from '@lanternwright/contract/fleet';
import { unitKinds, type UnitKind } from '@lanternwright/core/axle-plan';
import { problemText } from '../api.ts';
import { useMay } from '../people/people-api.ts';
import { sayDate, sayMeter, sayPlay } from '../shell/words.ts';
import { useAppSelector } from '../store.ts';
import { AxlePlan } from '../ui/axle-plan.tsx';
import { buttonLook } from '../ui/button.tsx';
import { Note } from '../ui/problem-note.tsx';
import { StateMark, stateWords } from '../ui/state-mark.tsx';
import type { RuleUnit } from '../ui/thou-rule.tsx';
import { useUnitsQuery } from './fleet-api.ts';

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

function UnitRow({ unit, shown }: { unit: UnitSummary; shown: RuleUnit }) {
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
            {[unit.plate, sayMeter(unit.meterKm, unit.hours)].filter(Boolean).join(' · ')}
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
              {trouble.endPlayMm !== null && `, ${sayPlay(trouble.endPlayMm, shown)}`}
            </span>
          ) : last ? (
            <span className="flex items-center gap-2">
              <StateMark state={last.state} /> {last.position}{' '}
              <span className="figure">{sayPlay(last.endPlayMm!, shown)}</span>
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

interface Filters {
  owner: string;
  kind: string;
  state: string;
}

function passes(unit: UnitSummary, { owner, kind, state }: Filters): boolean {
  return (
    (!owner || unit.owner.id === owner) &&
    (!kind || unit.kind === kind) &&
    (!state || unit.wheelEnds.some((w) => w.state === state))
  );
}

function FilterBar({
  units,
  filters,
  set,
}: {
  units: readonly UnitSummary[];
  filters: Filters;
  set: (part: Partial<Filters>) => void;
}) {
  const owners = new Map(units.map((u) => [u.owner.id, u.owner.name]));
  const kinds = new Set(units.map((u) => u.kind));
  const select = 'min-h-10 rounded-md border border-edge bg-panel px-2 text-14';
  return (
    <div className="flex flex-wrap items-center gap-2" role="group" aria-label="Filter the fleet">
      {owners.size > 1 && (
        <select
          aria-label="Owner"
          className={select}
          value={filters.owner}
          onChange={(e) => set({ owner: e.target.value })}
        >
          <option value="">All owners</option>
          {[...owners]
            .sort((a, b) => a[1].localeCompare(b[1]))
            .map(([id, name]) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
        </select>
      )}
      <select
        aria-label="Kind"
        className={select}
        value={filters.kind}
        onChange={(e) => set({ kind: e.target.value })}
      >
        <option value="">All kinds</option>
        {(Object.keys(unitKinds) as UnitKind[])
          .filter((k) => kinds.has(k))
          .map((k) => (
            <option key={k} value={k}>
              {unitKinds[k]}
            </option>
          ))}
      </select>
      <select
        aria-label="State"
        className={select}
        value={filters.state}
        onChange={(e) => set({ state: e.target.value })}
      >
        <option value="">All states</option>
        {states.map((s) => (
          <option key={s} value={s}>
            {stateWords[s]}
          </option>
        ))}
      </select>
    </div>
  );
}

function byOwner(units: readonly UnitSummary[]): [string, UnitSummary[]][] {
  const groups = new Map<string, UnitSummary[]>();
  for (const unit of units) groups.set(unit.owner.name, [...(groups.get(unit.owner.name) ?? []), unit]);
  const collator = new Intl.Collator('en', { numeric: true });
  for (const group of groups.values()) group.sort((a, b) => collator.compare(a.name, b.name));
  return [...groups].sort(([a], [b]) => a.localeCompare(b));
}

const filtersIn = (params: URLSearchParams): Filters => ({
  owner: params.get('owner') ?? '',
  kind: params.get('kind') ?? '',
  state: params.get('state') ?? '',
});

/** The fleet by owner, each unit drawn as its axle plan. */
export function FleetPage() {
  const { data, error } = useUnitsQuery();
  const able = useMay();
  const shown = useAppSelector((s) => s.preferences.unit);
  const [params, setParams] = useSearchParams();
  const filters = filtersIn(params);
  const set = (part: Partial<Filters>) => {
    // The address is ahead of what is drawn: a second choice made at once must not undo the first.
    const now = filtersIn(new URLSearchParams(window.location.search));
    const next = Object.entries({ ...now, ...part }).filter(([, v]) => v !== '');
    setParams(Object.fromEntries(next), { replace: true });
  };
  const units = useMemo(() => data ?? [], [data]);
  const shownUnits = units.filter((u) => passes(u, filters));
  const ends = units.flatMap((u) => u.wheelEnds);
  const count = (state: WheelEndState) => ends.filter((w) => w.state === state).length;
  return (
    <main>
      <div className="flex flex-wrap items-center justify-between gap-3 border-b border-rule px-5 py-4">
        <div>
          <h1 className="text-23">Fleet</h1>
          <p className="text-13 text-muted">
            {units.length} units, {ends.length} wheel ends
            {(['working', 'out-of-service', 'loose', 'tight'] as const).map((state) => {
              const found = count(state);
              return found === 0 ? null : (
                <button
                  key={state}
                  type="button"
                  onClick={() => set({ state: filters.state === state ? '' : state })}
                  aria-pressed={filters.state === state}
                  className={`ml-2 inline-flex min-h-8 items-center gap-1.5 rounded-md border px-2 text-13 font-semibold text-ink ${filters.state === state ? 'border-lamp-edge bg-lamp' : 'border-edge bg-panel'}`}
                >
                  <StateMark state={state} size={14} /> {found}{' '}
                  {state === 'working'
                    ? 'in a job'
                    : state === 'out-of-service'
                      ? 'out of service'
                      : `left ${state}`}
                </button>
              );
            })}
          </p>
        </div>
        <FilterBar {...{ units, filters, set }} />
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
            <Link to="/fleet/import" className={buttonLook('plain')}>
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
      {byOwner(shownUnits).map(([owner, group]) => (
        <section key={owner} aria-label={owner}>
          <h2 className="border-b border-rule bg-side px-5 py-2 text-14">
            {owner}{' '}
            <span className="font-normal text-muted">
              {group.length === 1 ? '1 unit' : `${group.length} units`}
            </span>
          </h2>
          <ul className="lg:grid lg:grid-cols-2 lg:[&>li:nth-child(odd)]:border-r">
            {group.map((unit) => (
              <UnitRow key={unit.id} {...{ unit, shown }} />
            ))}
          </ul>
        </section>
      ))}
      {data && shownUnits.length === 0 && (
        <p className="px-5 py-8 text-16 text-muted">
          {units.length === 0
            ? 'No units yet. Add one, or bring a fleet in from a CSV file.'
            : 'No unit fits. Take a filter away.'}
        </p>
      )}
    </main>
  );
}
