import pg from 'pg';

/** What was measured of one kind of work: how often a second, and how long each took. */
export interface Figures {
  aSecond: number;
  p50: number;
  p95: number;
}

/** The value that a share of a list stays below. @param share 0 to 1 */
export function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? Number.NaN;
}

/** Lets as many clients as are given work until the time is over; every call is timed, in ms. */
export async function measure<C>(
  clients: readonly C[],
  seconds: number,
  work: (client: C, index: number) => Promise<unknown>,
): Promise<Figures> {
  const times: number[] = [];
  const started = performance.now();
  const until = started + seconds * 1000;
  await Promise.all(
    clients.map(async (client, i) => {
      while (performance.now() < until) {
        const before = performance.now();
        await work(client, i);
        times.push(performance.now() - before);
      }
    }),
  );
  const took = (performance.now() - started) / 1000;
  return { aSecond: times.length / took, p50: quantile(times, 0.5), p95: quantile(times, 0.95) };
}

/** Prints figures, and what share of the bare work's rate they reach. */
export function say(what: string, figures: Figures, bare?: Figures): void {
  const { aSecond, p50, p95 } = figures;
  const share = bare
    ? `; ${(aSecond / bare.aSecond).toFixed(2)} of ${bare.aSecond.toFixed(0)} in bare SQL`
    : '';
  console.log(
    `${what}: ${aSecond.toFixed(0)} a second, p50 ${p50.toFixed(1)} ms, p95 ${p95.toFixed(1)} ms${share}`,
  );
}

/** Bare connections to the database, as the server's own role reads. */
export async function bareClients(url: string, count: number): Promise<pg.Client[]> {
  return Promise.all(
    Array.from({ length: count }, async () => {
      const client = new pg.Client({
        connectionString: url,
        options: '-c lanternwright.owners=all -c jit=off',
      });
      await client.connect();
      return client;
    }),
  );
}
