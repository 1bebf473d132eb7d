import { spawn } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { expect, it } from 'vitest';

const guard = fileURLToPath(new URL('../../dist/start/guard.js', import.meta.url));

/** A process of its own with the guard, in which something happens that nobody hears; what it logged, and its end. */
async function guarded(what: string): Promise<{ told: string; code: number | null }> {
  const program = `
    const { brokenBy, guardProcess } = await import(${JSON.stringify(guard)});
    const log = { error: (_, text) => console.log('error', text), fatal: (_, text) => console.log('fatal', text) };
    guardProcess(log, async () => { console.log('ends', brokenBy()); process.exit(1); });
    setTimeout(() => { ${what} });
    setTimeout(() => { console.log('goes on', brokenBy()); }, 50);`;
  const child = spawn(process.execPath, ['--input-type=module', '-e', program]);
  let told = '';
  child.stdout.on('data', (text: Buffer) => (told += text.toString()));
  const code = await new Promise<number | null>((done) => child.on('close', done));
  return { told, code };
}

it('a promise that nobody waits for ends no server', async () => {
  const { told, code } = await guarded(`void Promise.reject(new Error('the queue lost its database'))`);
  expect(told).toBe('error a part in the background failed\ngoes on null\n');
  expect(code).toBe(0);
});

it('nor does a connection that is gone', async () => {
  const gone = `Object.assign(new Error('terminating connection'), { code: '57P01' })`;
  const { told, code } = await guarded(`throw ${gone}`);
  expect(told).toBe('error a connection of the background is gone\ngoes on null\n');
  expect(code).toBe(0);
});

it('any other error ends it in order, and it says so meanwhile', async () => {
  const { told, code } = await guarded(`throw new TypeError('nothing is where it was')`);
  expect(told).toMatch(/^fatal .*\nends an error that nothing was ready for\n$/);
  expect(code).toBe(1);
});
