import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { Moon, Search, Sun } from 'lucide-react';
import { Link, NavLink } from 'react-router';
import { usePerson, useSignOutMutation } from '../people/people-api.ts';
import { useAppDispatch, useAppSelector } from '../store.ts';
import { LanternMark } from './lantern-mark.tsx';
import { themeChosen, unitChosen } from './preferences.ts';

/** Places that work. A place is added when it does, never as a stub. */
const places = [
  { to: '/fleet', title: 'Fleet' },
  { to: '/jobs', title: 'Jobs' },
] as const;

function UnitSwitch() {
  const unit = useAppSelector((s) => s.preferences.unit);
  const dispatch = useAppDispatch();
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
          aria-checked={u === unit}
          onClick={() => dispatch(unitChosen(u))}
          className={`min-h-9 px-3 text-13 ${u === unit ? 'bg-band-ink font-semibold text-band' : 'hover:bg-band-on'}`}
        >
          {u === 'in' ? 'thou' : 'mm'}
        </button>
      ))}
    </div>
  );
}

function PersonMenu({ onKeys }: { onKeys: () => void }) {
  const person = usePerson();
  const [signOut] = useSignOutMutation();
  const theme = useAppSelector((s) => s.preferences.theme);
  const dispatch = useAppDispatch();
  if (!person) return null;
  const item = 'flex min-h-12 w-full items-center gap-2 px-4 text-14 text-ink data-focus:bg-lamp';
  return (
    <Menu>
      <MenuButton className="min-h-10 rounded-md px-2 text-left text-13 hover:bg-band-on">
        <span className="font-semibold">{person.name}</span>
        <span className="hidden md:inline"> · {person.role}</span>
      </MenuButton>
      <MenuItems
        anchor="bottom end"
        className="z-20 min-w-56 rounded-lg border border-edge bg-panel py-1 focus:outline-none"
      >
        <MenuItem>
          <button
            type="button"
            className={item}
            onClick={() => dispatch(themeChosen(theme === 'day' ? 'night' : 'day'))}
          >
            {theme === 'day' ? <Moon size={16} aria-hidden /> : <Sun size={16} aria-hidden />}
            {theme === 'day' ? 'Night shift' : 'Day'}
          </button>
        </MenuItem>
        <MenuItem>
          <button type="button" className={item} onClick={onKeys}>
            Keys
          </button>
        </MenuItem>
        {person.role === 'supervisor' && (
          <MenuItem>
            <Link to="/people" className={item}>
              People
            </Link>
          </MenuItem>
        )}
        <MenuItem>
          <button type="button" className={item} onClick={() => void signOut()}>
            Sign out
          </button>
        </MenuItem>
      </MenuItems>
    </Menu>
  );
}

export function TopBand({ onFind, onKeys }: { onFind: () => void; onKeys: () => void }) {
  return (
    <header className="sticky top-0 z-10 flex min-h-[52px] flex-wrap items-center gap-x-2 gap-y-1 bg-band px-4 py-1 text-band-ink md:gap-x-6 md:px-5">
      <Link to="/fleet" className="flex items-center gap-2" aria-label="Lanternwright, to the fleet">
        <LanternMark />
        <span className="hidden text-16 font-semibold sm:inline">Lanternwright</span>
      </Link>
      <nav aria-label="Places" className="flex gap-1">
        {places.map((p) => (
          <NavLink
            key={p.to}
            to={p.to}
            className={({ isActive }) =>
              `flex min-h-9 items-center rounded-md px-3 text-14 ${isActive ? 'bg-band-on' : 'hover:bg-band-on'}`
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
        <PersonMenu onKeys={onKeys} />
      </div>
    </header>
  );
}
