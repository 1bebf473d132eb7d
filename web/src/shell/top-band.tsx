import { roles } from '@lanternwright/core/access';
import { Search } from 'lucide-react';
import { Link, NavLink } from 'react-router';
import { BeingFetched } from './being-fetched.tsx';
import { LanternMark } from './lantern-mark.tsx';
import { useMay, usePerson } from '../people/people-api.ts';
import { placesFor } from './places.ts';
import { useChooseUnits, useReader } from './use-reader.ts';

function UnitSwitch() {
  const units = useReader();
  const choose = useChooseUnits();
  return (
    <div
      role="radiogroup"
      aria-label="Unit of end play"
      className="flex overflow-hidden rounded-md border border-band-ink/40"
    >
      {(['in', 'mm'] as const).map((u) => (
        <button
          key={u}
          type="button"
          role="radio"
          aria-checked={u === units.length}
          onClick={() => choose({ ...units, length: u })}
          className={`min-h-9 px-3 text-13 ${u === units.length ? 'bg-band-ink font-semibold text-band' : 'hover:bg-band-on'}`}
        >
          {u === 'in' ? 'thou' : 'mm'}
        </button>
      ))}
    </div>
  );
}

interface Props {
  onFind: () => void;
  /** What belongs to whoever is signed in. */
  onPerson: () => void;
}

export function TopBand({ onFind, onPerson }: Props) {
  const person = usePerson();
  const able = useMay();
  return (
    <header className="sticky top-0 z-10 flex min-h-[52px] flex-wrap items-center gap-x-2 gap-y-1 bg-band px-4 py-1 text-band-ink md:gap-x-6 md:px-5">
      <Link to="/" className="flex items-center gap-2" aria-label="Lanternwright, to the first page">
        <LanternMark />
        <span className="hidden text-16 font-semibold sm:inline">Lanternwright</span>
      </Link>
      <nav
        aria-label="Places"
        className="order-last flex w-full justify-between sm:order-none sm:w-auto sm:gap-1"
      >
        {placesFor(able).map((p) => (
          <NavLink
            key={p.to}
            to={p.to}
            className={({ isActive }) =>
              `flex min-h-9 items-center rounded-md px-2 text-14 sm:px-3 ${isActive ? 'bg-band-on' : 'hover:bg-band-on'}`
            }
          >
            {p.title}
          </NavLink>
        ))}
      </nav>
      <div className="ml-auto flex items-center gap-2 md:gap-4">
        <button
          type="button"
          onClick={onFind}
          className="flex min-h-9 items-center gap-2 rounded-md px-2 text-13 hover:bg-band-on"
        >
          <Search size={16} aria-hidden className="sm:hidden" />
          <span className="sr-only sm:not-sr-only">Find</span>
          <kbd className="hidden rounded-sm border border-band-ink/40 px-1.5 text-12 md:inline">/</kbd>
        </button>
        <UnitSwitch />
        {person && (
          <button
            type="button"
            aria-haspopup="dialog"
            onClick={onPerson}
            className="min-h-10 rounded-md px-2 text-left text-13 hover:bg-band-on"
          >
            <span className="font-semibold">{person.name}</span>
            <span className="hidden md:inline"> · {roles[person.role]}</span>
          </button>
        )}
      </div>
      <BeingFetched />
    </header>
  );
}
