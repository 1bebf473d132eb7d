import { cleanup, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { sessionOf } from '../people/testing/session.ts';
import { serveWith, show } from '../testing/fake-server.tsx';
import { CameraReader } from './camera-reader.tsx';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  Reflect.deleteProperty(navigator, 'mediaDevices');
});

const id = '00000000-0000-4000-8000-000000000047';

async function open(camera: (() => Promise<MediaStream>) | null) {
  serveWith(() => ({ body: {} }));
  if (camera)
    Object.defineProperty(navigator, 'mediaDevices', {
      value: { getUserMedia: camera },
      configurable: true,
    });
  const closed = vi.fn();
  const person = sessionOf({ id, name: 'Q. Farrow', login: 'farrow', role: 'storekeeper' });
  const { user } = await show(<CameraReader onRead={() => undefined} onClose={closed} />, person);
  return { user, closed };
}
const refusal = (name: string) => () => Promise.reject(Object.assign(new Error('no'), { name }));

describe('the camera', () => {
  it.each([
    ['NotAllowedError', /may not use the camera/],
    ['NotFoundError', /has no camera/],
    ['NotReadableError', /another program may have it/],
  ])('says why it cannot be used: %s', async (name, words) => {
    const { user, closed } = await open(refusal(name));
    expect(await screen.findByText(words)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Close the camera' }));
    expect(closed).toHaveBeenCalledOnce();
  });

  it('is given over https alone, and says so where it is not', async () => {
    await open(null);
    expect(await screen.findByText(/over https alone/)).toBeTruthy();
  });
});
