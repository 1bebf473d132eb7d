import { afterEach, describe, expect, it, vi } from 'vitest';
import { loadPart, listenToParts, partsWaitFor } from './load-part.ts';

afterEach(() => {
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

/** Answers for each file in turn; the last one goes on. A null is a network that is away. */
function serveFiles(answers: Record<string, (number | null)[]>) {
  const asked: string[] = [];
  vi.stubGlobal('fetch', (address: string) => {
    asked.push(address);
    const turns = answers[address] ?? [200];
    const status = turns.length > 1 ? turns.shift()! : turns[0]!;
    return status === null
      ? Promise.reject(new TypeError('no network'))
      : Promise.resolve(new Response('', { status }));
  });
  return asked;
}

describe('a part of the program', () => {
  it('is imported once every file of it has come, however often the network went', async () => {
    vi.useFakeTimers();
    vi.spyOn(console, 'warn').mockImplementation(() => {});
    const asked = serveFiles({ '/assets/a1.js': [null, 503, 200], '/assets/a2.js': [200] });
    const states: unknown[] = [];
    const stop = listenToParts(() => states.push(partsWaitFor()));
    const importing = vi.fn(() => Promise.resolve('part'));
    const loaded = loadPart(importing, ['assets/a1.js', 'assets/a2.js']);
    await vi.advanceTimersByTimeAsync(2_000);
    expect(importing).not.toHaveBeenCalled();
    expect(partsWaitFor()).toBe('network');
    await vi.advanceTimersByTimeAsync(2_000);
    expect(await loaded).toBe('part');
    expect(asked.filter((a) => a === '/assets/a1.js')).toHaveLength(3);
    expect(states).toEqual(['network', null]);
    // What came once is not asked for again.
    await loadPart(importing, ['assets/a1.js', 'assets/a2.js']);
    expect(asked).toHaveLength(4);
    stop();
  });

  it('is asked for at once when the network is back', async () => {
    vi.spyOn(console, 'warn').mockImplementation(() => {});
    serveFiles({ '/assets/b.js': [null, 200] });
    const loaded = loadPart(() => Promise.resolve('part'), ['assets/b.js']);
    await vi.waitFor(() => expect(partsWaitFor()).toBe('network'));
    window.dispatchEvent(new Event('online'));
    expect(await loaded).toBe('part');
  });

  it('tells what it throws itself', async () => {
    serveFiles({});
    const broken = () => Promise.reject(new Error('a fault of the part'));
    await expect(loadPart(broken, ['assets/c.js'])).rejects.toThrow('a fault of the part');
  });

  // Last of all: a version that is gone stays gone until the page is loaded again.
  it('of a version that is gone waits for the reader to load the page again', async () => {
    const asked = serveFiles({ '/assets/d.js': [404] });
    const importing = vi.fn(() => Promise.resolve('part'));
    void loadPart(importing, ['assets/d.js']);
    await vi.waitFor(() => expect(partsWaitFor()).toBe('version'));
    expect(importing).not.toHaveBeenCalled();
    expect(asked).toHaveLength(1);
  });
});
