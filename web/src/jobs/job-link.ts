import type { Booked } from '@lanternwright/contract/plan';

export type WorkAsked = Booked['works'][number];

/** Works as they stand in an address; `worksAsked` reads them. */
const inAddress = (works: readonly WorkAsked[]): string =>
  works.map(({ position, work }) => `${position}.${work}`).join('~');

/** Where a job is opened on a unit for what is due or booked: the address holds it, nothing is typed twice. */
export function jobLink(unitId: string, works: readonly WorkAsked[], bookingId?: string): string {
  return `/fleet/${unitId}?${new URLSearchParams({ job: inAddress(works), ...(bookingId ? { booking: bookingId } : {}) }).toString()}`;
}

/** Where a time is looked for, for work on a unit. */
export function promiseLink(unitId: string, works: readonly WorkAsked[] = []): string {
  return `/plan/promise?${new URLSearchParams({ unit: unitId, job: inAddress(works) }).toString()}`;
}

/** What an address asks to be done, as far as it can be read; null where it opens no job. */
export function worksAsked(
  params: URLSearchParams,
): { works: { position: string; work: string }[]; bookingId: string | null } | null {
  const job = params.get('job');
  if (job === null) return null;
  const works = job.split('~').flatMap((part) => {
    const [position, work] = part.split('.');
    return position && work ? [{ position, work }] : [];
  });
  return { works, bookingId: params.get('booking') };
}
