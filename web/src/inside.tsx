import { lazy, type ComponentType } from 'react';
import { ErrorBoundary, type FallbackProps } from 'react-error-boundary';
import { BrowserRouter, Link, Navigate, Outlet, Route, Routes, useLocation } from 'react-router';
import { may, type Capability } from '@lanternwright/core/access';
import { useMay, usePerson } from './people/people-api.ts';
import { placesFor } from './shell/places.ts';
import { Shell } from './shell/shell.tsx';
import { Button, buttonLook } from './ui/button.tsx';

/** A page that is loaded when somebody goes there; until it is here, the page before it stays. */
const page = <K extends string>(load: () => Promise<Record<K, ComponentType>>, name: K) =>
  lazy(async () => ({ default: (await load())[name] }));

const OverviewPage = page(() => import('./owner/overview-page.tsx'), 'OverviewPage');
const FloorPage = page(() => import('./plan/floor-page.tsx'), 'FloorPage');
const YardPage = page(() => import('./plan/yard-page.tsx'), 'YardPage');
const PlanPage = page(() => import('./plan/plan-page.tsx'), 'PlanPage');
const WeekPage = page(() => import('./plan/week-page.tsx'), 'WeekPage');
const LoadPage = page(() => import('./plan/load-page.tsx'), 'LoadPage');
const PromisePage = page(() => import('./plan/promise-page.tsx'), 'PromisePage');
const ProposalPage = page(() => import('./plan/proposal-page.tsx'), 'ProposalPage');
const FleetPage = page(() => import('./fleet/fleet-page.tsx'), 'FleetPage');
const NewUnitPage = page(() => import('./fleet/new-unit-page.tsx'), 'NewUnitPage');
const FleetListPage = page(() => import('./fleet/list-page.tsx'), 'FleetListPage');
const ImportPage = page(() => import('./fleet/import-page.tsx'), 'ImportPage');
const MeterFilesPage = page(() => import('./fleet/meter-files-page.tsx'), 'MeterFilesPage');
const SheetsPage = page(() => import('./sheets/sheets-page.tsx'), 'SheetsPage');
const SheetPage = page(() => import('./sheets/sheet-page.tsx'), 'SheetPage');
const ToolsPage = page(() => import('./tools/tools-page.tsx'), 'ToolsPage');
const UnitPage = page(() => import('./fleet/unit-page.tsx'), 'UnitPage');
const AxlesPage = page(() => import('./fleet/axles-page.tsx'), 'AxlesPage');
const JobsPage = page(() => import('./jobs/jobs-page.tsx'), 'JobsPage');
const ClosedJobsPage = page(() => import('./jobs/jobs-page.tsx'), 'ClosedJobsPage');
const FollowUpsPage = page(() => import('./jobs/follow-ups-page.tsx'), 'FollowUpsPage');
const AnyJobPage = page(() => import('./jobs/any-job-page.tsx'), 'AnyJobPage');
const ReleasePage = page(() => import('./jobs/release-page.tsx'), 'ReleasePage');
const StoresPage = page(() => import('./stores/stores-page.tsx'), 'StoresPage');
const OrderPage = page(() => import('./stores/order-page.tsx'), 'OrderPage');
const PartPage = page(() => import('./stores/part-page.tsx'), 'PartPage');
const ReckonerPage = page(() => import('./reckoner/reckoner-page.tsx'), 'ReckonerPage');
const PeoplePage = page(() => import('./people/people-page.tsx'), 'PeoplePage');
const WaitingPage = page(() => import('./jobs/waiting-page.tsx'), 'WaitingPage');
const MyPage = page(() => import('./people/my-page.tsx'), 'MyPage');
const SettingsPage = page(() => import('./shop/settings-page.tsx'), 'SettingsPage');
const ProgramsPage = page(() => import('./programs/programs-page.tsx'), 'ProgramsPage');

function PageFault({ error }: FallbackProps) {
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

/** Pages of whoever may do something. For everybody else they are not there. */
function Only({ needs }: { needs: Capability }) {
  const able = useMay();
  const person = usePerson();
  if (able(needs)) return <Outlet />;
  // Who came in with a PIN could open it with their password.
  if (!person || !may(person.role, needs)) return <NoPage />;
  return (
    <main className="flex flex-col gap-4 p-6">
      <h1 className="text-23">This page needs your password</h1>
      <p>You came in with a PIN. Sign out, then sign in with your password to open it.</p>
    </main>
  );
}

/** Where somebody begins: at the first place they may see. */
function FirstPage() {
  const able = useMay();
  const [first] = placesFor(able);
  return <Navigate to={first?.to ?? '/me'} replace />;
}

function Pages() {
  const { pathname } = useLocation();
  return (
    <ErrorBoundary FallbackComponent={PageFault} resetKeys={[pathname]}>
      <Routes>
        <Route path="/" element={<Shell />}>
          <Route index element={<FirstPage />} />
          <Route element={<Only needs="see-own-ahead" />}>
            <Route path="overview" element={<OverviewPage />} />
          </Route>
          <Route element={<Only needs="see-plan" />}>
            <Route path="floor" element={<FloorPage />} />
            <Route path="floor/yard" element={<YardPage />} />
            <Route path="plan" element={<PlanPage />} />
            <Route path="plan/week" element={<WeekPage />} />
            <Route path="plan/load" element={<LoadPage />} />
            <Route path="plan/promise" element={<PromisePage />} />
            <Route path="plan/proposals/:id" element={<ProposalPage />} />
          </Route>
          <Route element={<Only needs="see-units" />}>
            <Route path="fleet" element={<FleetPage />} />
            <Route path="fleet/:id" element={<UnitPage />} />
            <Route path="fleet/:id/axles" element={<AxlesPage />} />
          </Route>
          <Route element={<Only needs="add-units" />}>
            <Route path="fleet/new" element={<NewUnitPage />} />
            <Route path="fleet/list" element={<FleetListPage />} />
            <Route path="fleet/import" element={<ImportPage />} />
          </Route>
          <Route element={<Only needs="read-meters" />}>
            <Route path="fleet/meters" element={<MeterFilesPage />} />
          </Route>
          <Route element={<Only needs="see-sheets" />}>
            <Route path="fleet/sheets" element={<SheetsPage />} />
            <Route path="fleet/sheets/:sheetId" element={<SheetPage />} />
          </Route>
          <Route element={<Only needs="see-tools" />}>
            <Route path="fleet/tools" element={<ToolsPage />} />
          </Route>
          <Route element={<Only needs="see-jobs" />}>
            <Route path="jobs" element={<JobsPage />} />
            <Route path="jobs/closed" element={<ClosedJobsPage />} />
            <Route path="jobs/follow-ups" element={<FollowUpsPage />} />
            <Route path="jobs/:id" element={<AnyJobPage />} />
            <Route path="jobs/:id/release" element={<ReleasePage />} />
          </Route>
          <Route element={<Only needs="see-stores" />}>
            <Route path="stores" element={<StoresPage />} />
            <Route path="stores/orders/:id" element={<OrderPage />} />
            <Route path="stores/:id" element={<PartPage />} />
          </Route>
          <Route element={<Only needs="run-sums" />}>
            <Route path="reckoner" element={<ReckonerPage />} />
            <Route path="reckoner/:name" element={<ReckonerPage />} />
          </Route>
          <Route element={<Only needs="manage-people" />}>
            <Route path="people" element={<PeoplePage />} />
          </Route>
          <Route element={<Only needs="change-settings" />}>
            <Route path="settings" element={<SettingsPage />} />
            <Route path="settings/programs" element={<ProgramsPage />} />
          </Route>
          <Route path="waiting" element={<WaitingPage />} />
          <Route path="me" element={<MyPage />} />
          <Route path="*" element={<NoPage />} />
        </Route>
      </Routes>
    </ErrorBoundary>
  );
}

/** Everything behind the door: loaded when somebody has signed in. */
export function Inside() {
  return (
    <BrowserRouter>
      <Pages />
    </BrowserRouter>
  );
}
