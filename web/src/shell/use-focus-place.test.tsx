import { cleanup, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { afterEach, describe, expect, it } from 'vitest';
import { useFocusPlace } from './use-focus-place.ts';

afterEach(cleanup);

function Page() {
  useFocusPlace();
  const [shown, setShown] = useState<'row' | 'form' | 'page' | 'none'>('row');
  if (shown === 'none') return <main aria-label="another">Another page</main>;
  return (
    <main aria-label="first">
      <section aria-label="part">
        <ul>
          {shown !== 'form' && (
            <li>
              <button onClick={() => setShown('form')}>Take the row away</button>
            </li>
          )}
        </ul>
        <button onClick={() => setShown('none')}>Leave the page</button>
        <input aria-label="text" />
      </section>
    </main>
  );
}

describe('the focus', () => {
  it('goes to the nearest place that is left when what had it goes away', async () => {
    render(<Page />);
    const user = userEvent.setup();
    await user.tab();
    await user.keyboard('{Enter}');
    await waitFor(() => expect(document.activeElement).toBe(screen.getByRole('region', { name: 'part' })));
    // And on from there.
    await user.tab();
    expect(document.activeElement).toBe(screen.getByRole('button', { name: 'Leave the page' }));
  });

  it('goes to the next page where nothing of the last is left', async () => {
    render(<Page />);
    const user = userEvent.setup();
    await user.click(screen.getByRole('button', { name: 'Leave the page' }));
    await waitFor(() => expect(document.activeElement).toBe(screen.getByRole('main', { name: 'another' })));
  });

  it('is left alone while what has it stands', async () => {
    render(<Page />);
    const user = userEvent.setup();
    await user.click(screen.getByLabelText('text'));
    screen.getByRole('button', { name: 'Take the row away' }).click();
    await waitFor(() => expect(screen.queryByRole('listitem')).toBeNull());
    expect(document.activeElement).toBe(screen.getByLabelText('text'));
  });
});
