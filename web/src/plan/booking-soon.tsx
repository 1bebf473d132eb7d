import { lazy, Suspense, type ComponentProps } from 'react';

export type { Wanted } from './booking-form.tsx';

const Form = lazy(() => import('./booking-form.tsx').then((m) => ({ default: m.BookingForm })));

/** The form of a booking, fetched when the first is opened. */
export function BookingForm(props: ComponentProps<typeof Form>) {
  return (
    <Suspense>
      <Form {...props} />
    </Suspense>
  );
}
