import type { Capability } from '@lanternwright/core/access';
import { lazy, Suspense, useState } from 'react';
import { Outlet, useNavigate } from 'react-router';
import { useMay } from '../people/people-api.ts';
import { OutboxBar } from '../jobs/outbox-bar.tsx';
import { useLive } from '../jobs/live.ts';
import { NewVersion } from '../offline/new-version.tsx';
import { OfflineBar } from '../offline/offline-bar.tsx';
import { useAppDispatch, useAppSelector } from '../store.ts';
import { FindSoon } from './find-soon.tsx';
import { themeChosen } from './preferences.ts';
import { TopBand } from './top-band.tsx';
import { FirstHour } from '../shop/first-hour.tsx';
import { useKeys } from './use-keys.ts';
import { useChooseUnits, useReader } from './use-reader.ts';
import { useFocusPlace } from './use-focus-place.ts';
import { useScrollPlace } from './use-scroll-place.ts';

const Find = lazy(() => import('./find.tsx').then((m) => ({ default: m.Find })));
const KeysSheet = lazy(() => import('./keys-sheet.tsx').then((m) => ({ default: m.KeysSheet })));
const PersonSheet = lazy(() => import('./person-sheet.tsx').then((m) => ({ default: m.PersonSheet })));
const ChangePerson = lazy(() =>
  import('../people/change-person.tsx').then((m) => ({ default: m.ChangePerson })),
);

/** What stands round every page: band, find, keys, the live stream and what waits to be sent. */
export function Shell() {
  const navigate = useNavigate();
  const dispatch = useAppDispatch();
  const theme = useAppSelector((s) => s.preferences.theme);
  const units = useReader();
  const choose = useChooseUnits();
  const [open, setOpen] = useState<'find' | 'keys' | 'person' | 'change-person' | null>(null);
  const [typed, setTyped] = useState('');
  const able = useMay();
  useScrollPlace();
  useFocusPlace();
  useLive(able('see-jobs'), able('work-on-jobs'));
  const find = () => {
    setTyped('');
    setOpen('find');
  };
  const go = (to: string, capability: Capability) => () => {
    if (able(capability)) void navigate(to);
  };
  useKeys({
    '/': find,
    '?': () => setOpen('keys'),
    'g o': go('/floor', 'see-plan'),
    'g p': go('/plan', 'see-plan'),
    'g f': go('/fleet', 'see-units'),
    'g j': go('/jobs', 'see-jobs'),
    'g r': go('/reckoner', 'run-sums'),
    u: () => choose({ ...units, length: units.length === 'in' ? 'mm' : 'in' }),
    n: () => dispatch(themeChosen(theme === 'day' ? 'night' : 'day')),
  });
  const close = () => setOpen(null);
  return (
    <div className="flex min-h-dvh flex-col">
      <TopBand onFind={find} onPerson={() => setOpen('person')} />
      <NewVersion />
      <OfflineBar />
      <OutboxBar />
      {able('change-settings') && <FirstHour />}
      <Suspense fallback={<p className="p-6 text-muted">Opening.</p>}>
        <Outlet />
      </Suspense>
      {open === 'find' && (
        <Suspense fallback={<FindSoon typed={typed} onType={setTyped} onClose={close} />}>
          <Find begun={typed} onClose={close} />
        </Suspense>
      )}
      <Suspense>
        {open === 'person' && (
          <PersonSheet
            onClose={close}
            onKeys={() => setOpen('keys')}
            onChangePerson={() => setOpen('change-person')}
          />
        )}
        {open === 'keys' && <KeysSheet onClose={close} />}
        {open === 'change-person' && <ChangePerson onClose={close} />}
      </Suspense>
    </div>
  );
}
