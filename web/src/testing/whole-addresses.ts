import { vi } from 'vitest';

/** Node.js takes no path alone for an address, as a browser does; until the globals are put back. */
export function takePathsForAddresses(): void {
  const Plain = Request;
  vi.stubGlobal(
    'Request',
    class extends Plain {
      constructor(path: string, init?: RequestInit) {
        super(new URL(path, 'http://127.0.0.1'), init);
      }
    },
  );
}
