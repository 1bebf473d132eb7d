import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { Moon, Sun } from 'lucide-react';
import { Link } from 'react-router';
import { roles } from '@lanternwright/core/access';
import { useMay, usePerson, useSignOutMutation } from '../people/people-api.ts';
import { useAppDispatch, useAppSelector } from '../store.ts';
import { themeChosen } from './preferences.ts';

/** Who is signed in, and what belongs to that person. */
export function PersonMenu({ onKeys, onChangePerson }: { onKeys: () => void; onChangePerson: () => void }) {
  const person = usePerson();
  const able = useMay();
  const [signOut] = useSignOutMutation();
  const theme = useAppSelector((s) => s.preferences.theme);
  const dispatch = useAppDispatch();
  if (!person) return null;
  const item = 'flex min-h-12 w-full items-center gap-2 px-4 text-14 text-ink data-focus:bg-lamp';
  return (
    <Menu>
      <MenuButton className="min-h-10 rounded-md px-2 text-left text-13 hover:bg-band-on">
        <span className="font-semibold">{person.name}</span>
        <span className="hidden md:inline"> · {roles[person.role]}</span>
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
        <MenuItem>
          <Link to="/me" className={item}>
            Password and PIN
          </Link>
        </MenuItem>
        {able('see-jobs') && (
          <MenuItem>
            <Link to="/waiting" className={item}>
              What waits here
            </Link>
          </MenuItem>
        )}
        {able('manage-people') && (
          <MenuItem>
            <Link to="/people" className={item}>
              People
            </Link>
          </MenuItem>
        )}
        {able('change-settings') && (
          <MenuItem>
            <Link to="/settings" className={item}>
              Settings of the shop
            </Link>
          </MenuItem>
        )}
        {able('share-terminal') && (
          <MenuItem>
            <button type="button" className={item} onClick={onChangePerson}>
              Change person
            </button>
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
