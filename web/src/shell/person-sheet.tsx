import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import { Moon, Sun } from 'lucide-react';
import { Link } from 'react-router';
import type { Capability } from '@lanternwright/core/access';
import { roles } from '@lanternwright/core/access';
import { useMay, usePerson, useSignOutMutation } from '../people/people-api.ts';
import { useAppDispatch, useAppSelector } from '../store.ts';
import { themeChosen } from './preferences.ts';

const places: readonly { to: string; title: string; needs?: Capability }[] = [
  { to: '/me', title: 'Units, password, PIN' },
  { to: '/waiting', title: 'What waits here', needs: 'see-jobs' },
  { to: '/people', title: 'People', needs: 'manage-people' },
  { to: '/settings', title: 'Settings of the shop', needs: 'change-settings' },
];

interface Props {
  onClose: () => void;
  onKeys: () => void;
  onChangePerson: () => void;
}

/** Who is signed in, and what belongs to that person. */
export function PersonSheet({ onClose, onKeys, onChangePerson }: Props) {
  const person = usePerson();
  const able = useMay();
  const [signOut] = useSignOutMutation();
  const theme = useAppSelector((s) => s.preferences.theme);
  const dispatch = useAppDispatch();
  if (!person) return null;
  const item =
    'flex min-h-12 w-full items-center gap-2 px-4 text-14 text-ink hover:bg-lamp focus-visible:bg-lamp';
  return (
    <Dialog open onClose={onClose} className="relative z-30">
      <div className="fixed inset-0 bg-band/30" aria-hidden />
      <DialogPanel className="fixed top-14 right-3 max-h-[calc(100dvh-72px)] min-w-60 overflow-y-auto rounded-lg border border-edge bg-panel py-1">
        <DialogTitle className="border-b border-rule px-4 py-3 text-14">
          {person.name} <span className="font-normal text-muted">· {roles[person.role]}</span>
        </DialogTitle>
        <button
          type="button"
          className={item}
          onClick={() => dispatch(themeChosen(theme === 'day' ? 'night' : 'day'))}
        >
          {theme === 'day' ? <Moon size={16} aria-hidden /> : <Sun size={16} aria-hidden />}
          {theme === 'day' ? 'Night shift' : 'Day'}
        </button>
        <button type="button" className={item} onClick={onKeys}>
          Keys
        </button>
        {places
          .filter((p) => !p.needs || able(p.needs))
          .map((p) => (
            <Link key={p.to} to={p.to} className={item} onClick={onClose}>
              {p.title}
            </Link>
          ))}
        {able('share-terminal') && (
          <button type="button" className={item} onClick={onChangePerson}>
            Change person
          </button>
        )}
        <button type="button" className={item} onClick={() => void signOut()}>
          Sign out
        </button>
      </DialogPanel>
    </Dialog>
  );
}
