import {
  createBrowserRouter,
  Link,
  Navigate,
  RouterProvider,
  useLocation,
  useRouteError,
} from 'react-router';
import { useMay } from './people/people-api.ts';
import { placesFor } from './shell/places.ts';
import { Shell } from './shell/shell.tsx';
import { Button, buttonLook } from './ui/button.tsx';

function PageFault() {
  const error = useRouteError();
  return (
    <main className="flex flex-col items-start gap-4 p-6">
      <h1 className="text-23">This page could not be shown</h1>
      <p>
        What you recorded is kept. Load the page again; if it stays, tell whoever looks after Lanternwright.
      </p>
      <pre className="figure text-12 text-muted">
        {error instanceof Error ? error.message : String(error)}
      </pre>
      <Button weight="main" onClick={() => window.location.reload()}>
        Load again
      </Button>
    </main>
  );
}

/** An address that is none, with the way home. */
function NoPage() {
  const { pathname } = useLocation();
  return (
    <main className="flex flex-col items-start gap-4 p-6">
      <h1 className="text-23">There is no such page</h1>
      <p>
        Nothing of Lanternwright is at <span className="figure break-all">{pathname}</span>. The link may be
        from another shop, or a letter of it is missing.
      </p>
      <Link to="/" className={buttonLook('main')}>
        To the first page
      </Link>
    </main>
  );
}

/** Where somebody begins: at the first place they may see. */
function FirstPage() {
  const able = useMay();
  const [first] = placesFor(able);
  return <Navigate to={first?.to ?? '/me'} replace />;
}

const router = createBrowserRouter([
  {
    path: '/',
    Component: Shell,
    ErrorBoundary: PageFault,
    HydrateFallback: () => null,
    children: [
      { index: true, Component: FirstPage },
      { path: 'floor', lazy: async () => ({ Component: (await import('./plan/floor-page.tsx')).FloorPage }) },
      {
        path: 'floor/yard',
        lazy: async () => ({ Component: (await import('./plan/yard-page.tsx')).YardPage }),
      },
      { path: 'plan', lazy: async () => ({ Component: (await import('./plan/plan-page.tsx')).PlanPage }) },
      {
        path: 'plan/week',
        lazy: async () => ({ Component: (await import('./plan/week-page.tsx')).WeekPage }),
      },
      {
        path: 'plan/load',
        lazy: async () => ({ Component: (await import('./plan/load-page.tsx')).LoadPage }),
      },
      {
        path: 'plan/promise',
        lazy: async () => ({ Component: (await import('./plan/promise-page.tsx')).PromisePage }),
      },
      {
        path: 'plan/proposals/:id',
        lazy: async () => ({ Component: (await import('./plan/proposal-page.tsx')).ProposalPage }),
      },
      {
        path: 'fleet',
        lazy: async () => ({ Component: (await import('./fleet/fleet-page.tsx')).FleetPage }),
      },
      {
        path: 'fleet/new',
        lazy: async () => ({ Component: (await import('./fleet/new-unit-page.tsx')).NewUnitPage }),
      },
      {
        path: 'fleet/list',
        lazy: async () => ({ Component: (await import('./fleet/list-page.tsx')).FleetListPage }),
      },
      {
        path: 'fleet/import',
        lazy: async () => ({ Component: (await import('./fleet/import-page.tsx')).ImportPage }),
      },
      {
        path: 'fleet/meters',
        lazy: async () => ({ Component: (await import('./fleet/meter-files-page.tsx')).MeterFilesPage }),
      },
      {
        path: 'fleet/sheets',
        lazy: async () => ({ Component: (await import('./sheets/sheets-page.tsx')).SheetsPage }),
      },
      {
        path: 'fleet/sheets/:sheetId',
        lazy: async () => ({ Component: (await import('./sheets/sheet-page.tsx')).SheetPage }),
      },
      {
        path: 'fleet/tools',
        lazy: async () => ({ Component: (await import('./tools/tools-page.tsx')).ToolsPage }),
      },
      {
        path: 'fleet/:id',
        lazy: async () => ({ Component: (await import('./fleet/unit-page.tsx')).UnitPage }),
      },
      {
        path: 'fleet/:id/axles',
        lazy: async () => ({ Component: (await import('./fleet/axles-page.tsx')).AxlesPage }),
      },
      { path: 'jobs', lazy: async () => ({ Component: (await import('./jobs/jobs-page.tsx')).JobsPage }) },
      {
        path: 'jobs/closed',
        lazy: async () => ({ Component: (await import('./jobs/jobs-page.tsx')).ClosedJobsPage }),
      },
      {
        path: 'jobs/follow-ups',
        lazy: async () => ({ Component: (await import('./jobs/follow-ups-page.tsx')).FollowUpsPage }),
      },
      {
        path: 'jobs/:id',
        lazy: async () => ({ Component: (await import('./jobs/any-job-page.tsx')).AnyJobPage }),
      },
      {
        path: 'jobs/:id/release',
        lazy: async () => ({ Component: (await import('./jobs/release-page.tsx')).ReleasePage }),
      },
      {
        path: 'stores',
        lazy: async () => ({ Component: (await import('./stores/stores-page.tsx')).StoresPage }),
      },
      {
        path: 'stores/orders/:id',
        lazy: async () => ({ Component: (await import('./stores/order-page.tsx')).OrderPage }),
      },
      {
        path: 'stores/:id',
        lazy: async () => ({ Component: (await import('./stores/part-page.tsx')).PartPage }),
      },
      {
        path: 'reckoner',
        lazy: async () => ({ Component: (await import('./reckoner/reckoner-page.tsx')).ReckonerPage }),
      },
      {
        path: 'reckoner/:name',
        lazy: async () => ({ Component: (await import('./reckoner/reckoner-page.tsx')).ReckonerPage }),
      },
      {
        path: 'people',
        lazy: async () => ({ Component: (await import('./people/people-page.tsx')).PeoplePage }),
      },
      {
        path: 'waiting',
        lazy: async () => ({ Component: (await import('./jobs/waiting-page.tsx')).WaitingPage }),
      },
      { path: 'me', lazy: async () => ({ Component: (await import('./people/my-page.tsx')).MyPage }) },
      {
        path: 'settings',
        lazy: async () => ({ Component: (await import('./shop/settings-page.tsx')).SettingsPage }),
      },
      {
        path: 'settings/programs',
        lazy: async () => ({ Component: (await import('./programs/programs-page.tsx')).ProgramsPage }),
      },
      { path: '*', Component: NoPage },
    ],
  },
]);

/** Everything behind the door: loaded when somebody has signed in. */
export function Inside() {
  return <RouterProvider router={router} />;
}
