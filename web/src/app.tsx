import { lazy, Suspense, useEffect } from 'react';
import { problemText } from './api.ts';
import { OfflineBar } from './offline/offline-bar.tsx';
import { SignIn } from './people/sign-in.tsx';
import { useSessionQuery } from './people/people-api.ts';
import { unitsChosen } from './shell/preferences.ts';
import { setShopZone } from './shell/words.ts';
import { useAppDispatch } from './store.ts';
import { Button } from './ui/button.tsx';

const Inside = lazy(() => import('./inside.tsx').then((m) => ({ default: m.Inside })));

/** The application behind its door. */
export function App() {
  const { data, error, refetch } = useSessionQuery();
  const dispatch = useAppDispatch();
  const units = data?.units;
  useEffect(() => {
    if (units) dispatch(unitsChosen(units));
  }, [dispatch, units]);
  if (error && !data) {
    return (
      <main className="flex flex-col items-start gap-4 p-6">
        <p>{problemText(error)}</p>
        <Button onClick={() => void refetch()}>Try again</Button>
      </main>
    );
  }
  if (!data) return null;
  // Before anything below says a time.
  setShopZone(data.shop.zone);
  if (!data.person) return <SignIn session={data} />;
  return (
    <Suspense fallback={<OfflineBar />}>
      <Inside />
    </Suspense>
  );
}
