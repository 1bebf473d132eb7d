import { spawn } from 'node:child_process';
import {
  chmodSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { checkDatabase, checkHome, checkShopAddress, portOf } from './lib/before-start.mjs';
import { networkAddresses, openTo, thisMachineOnly } from './lib/network.mjs';
import { checkNode } from './lib/packages.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { root, run } from './lib/run.mjs';
import { portFrom } from './lib/serve.mjs';

/** @type {string} */
let home;
beforeAll(() => {
  home = mkdtempSync(join(tmpdir(), 'lanternwright-scripts-'));
  chmodSync(home, 0o755);
});
afterAll(() => rmSync(home, { recursive: true, force: true }));

describe('every failure is one sentence that says what to do', () => {
  it('an older Node.js', () => {
    expect(() => checkNode('18.20.0')).toThrow(
      /needs Node\.js 20\.19 or newer and this is 18\.20\.0: install a newer/,
    );
    expect(() => checkNode('20.19.0')).not.toThrow();
    expect(() => checkNode('24.1.0')).not.toThrow();
  });

  it('a broken data directory', async () => {
    const broken = join(home, 'broken');
    mkdirSync(join(broken, 'pg'), { recursive: true });
    writeFileSync(join(broken, 'pg/stray'), 'x');
    await expect(startPostgres(broken)).rejects.toThrow(/is not whole: move it away/);
  });

  it('a data directory of another PostgreSQL', async () => {
    const old = join(home, 'old');
    mkdirSync(join(old, 'pg'), { recursive: true });
    writeFileSync(join(old, 'pg/PG_VERSION'), '9');
    writeFileSync(join(old, 'password'), 'x');
    await expect(startPostgres(old)).rejects.toThrow(
      /made by PostgreSQL 9.*install postgresql-9 or move the directory away/,
    );
  });

  it('a port that is taken gives the next one', async () => {
    const taken = createServer();
    const port = await new Promise((resolve) =>
      taken.listen(0, '127.0.0.1', () => resolve(/** @type {any} */ (taken.address()).port)),
    );
    expect(await portFrom(port)).toBeGreaterThan(port);
    taken.close();
  });

  it('a port, an address or a folder that cannot be meant, before anything is built', async () => {
    expect(portOf(undefined)).toBe(8080);
    expect(portOf('9000')).toBe(9000);
    for (const text of ['abc', '', '0', '70000', '80.5'])
      expect(() => portOf(text)).toThrow(/^PORT is “.*”: set it to a number from 1 to 65535\.$/);
    for (const text of [undefined, 'https://shop.example.org', 'http://10.0.0.5:8080'])
      expect(() => checkShopAddress(text)).not.toThrow();
    for (const text of ['shop', 'shop.example.org:8080', 'ftp://shop.example.org', ''])
      expect(() => checkShopAddress(text)).toThrow(
        /SHOP_ADDRESS is .*: set it to the address that tablets open/,
      );
    const file = join(home, 'a-file');
    writeFileSync(file, 'x');
    expect(() => checkHome(join(file, 'data'))).toThrow(/cannot be written .*set LANTERNWRIGHT_DATA/);
    expect(() => checkHome(join(home, 'new/data'))).not.toThrow();
    const env = { ...process.env, PORT: 'abc', LANTERNWRIGHT_DATA: join(home, 'unused') };
    const { code, output } = await run('npm', ['-s', 'start'], { quiet: true, env });
    expect(code).toBe(1);
    expect(output).not.toMatch(/Packages/);
    expect(output).toContain('PORT is “abc”: set it to a number from 1 to 65535.');
  });

  it('an old Node.js, in words that it can read', async () => {
    const script = readFileSync(join(root, 'scripts/old-node.cjs'), 'utf8');
    const told = (/** @type {string} */ node) => {
      /** @type {string[]} */
      const said = [];
      const exit = () => said.push('exit');
      const process = { versions: { node }, exit };
      new Function('process', 'console', 'module', script)(
        process,
        {
          error: (/** @type {string} */ t) => said.push(t),
        },
        {},
      );
      return said;
    };
    for (const node of ['0.10.48', '12.22.12', '18.20.4', '20.18.3'])
      expect(told(node)).toEqual([expect.stringContaining(`and this is ${node}: install a newer`), 'exit']);
    for (const node of ['20.19.0', '22.1.0', '100.0.0']) expect(told(node)).toEqual([]);
  });

  it('a database that is none, or that nothing answers for', async () => {
    await expect(checkDatabase('mysql://x')).rejects.toThrow(/no address of a PostgreSQL/);
    await expect(checkDatabase('shop')).rejects.toThrow(/no address of a PostgreSQL/);
    await expect(checkDatabase('postgres://u:p@127.0.0.1:1/x')).rejects.toThrow(
      /Nothing answers at 127\.0\.0\.1, port 1 \(ECONNREFUSED\)/,
    );
    await expect(checkDatabase(undefined)).resolves.toBeUndefined();
  });

  it('a database that cannot be reached', async () => {
    const env = {
      ...process.env,
      DATABASE_URL: 'postgres://nobody:x@127.0.0.1:1/none',
      LANTERNWRIGHT_DATA: join(home, 'unused'),
    };
    const { code, output } = await run('node', ['scripts/start.mjs'], { quiet: true, env });
    expect(code).toBe(1);
    expect(output).toMatch(/check DATABASE_URL and that the database can be reached/);
  });
});

describe('who can open the shop', () => {
  const address = { netmask: '', mac: '', cidr: null };
  const v4 = { ...address, family: /** @type {const} */ ('IPv4') };

  it('is this machine, where nobody said otherwise; where HOST did, it is named', () => {
    expect(thisMachineOnly(undefined)).toMatchObject({
      words: expect.stringMatching(/^Only this machine/),
      settings: {},
    });
    expect(thisMachineOnly('127.0.0.1').words).toMatch(/^Only this machine/);
    expect(thisMachineOnly('0.0.0.0').words).toMatch(/listens on 0\.0\.0\.0/);
  });

  it('is everybody on its network by one flag: at its addresses there, of which tags carry the first', () => {
    const addresses = networkAddresses({
      lo: [{ ...v4, address: '127.0.0.1', internal: true }],
      eth0: [
        { ...v4, address: '192.168.4.20', internal: false },
        { ...address, family: 'IPv6', scopeid: 0, address: 'fe80::1', internal: false },
      ],
      usb0: [{ ...v4, address: '169.254.9.9', internal: false }],
    });
    expect(addresses).toEqual(['192.168.4.20']);
    expect(openTo(8081, undefined, addresses)).toMatchObject({
      words: expect.stringMatching(
        /^Tablets open it at http:\/\/192\.168\.4\.20:8081; tags carry.*\n.*not encrypted/,
      ),
      settings: { HOST: '0.0.0.0', SHOP_ADDRESS: 'http://192.168.4.20:8081' },
    });
    expect(openTo(8081, 'https://shop.example', addresses).settings).toMatchObject({
      SHOP_ADDRESS: 'https://shop.example',
    });
    expect(() => openTo(8081, undefined, [])).toThrow(/on no network: join/);
  });
});

describe('npm start', () => {
  /** @param {string[]} args */
  function start(...args) {
    const env = { ...process.env, PORT: '18080', LANTERNWRIGHT_DATA: join(home, 'data') };
    const child = spawn('node', ['scripts/start.mjs', ...args], { cwd: root, env });
    let output = '';
    child.stdout.on('data', (d) => (output += d));
    child.stderr.on('data', (d) => (output += d));
    const url = new Promise((resolve, reject) => {
      child.stdout.on('data', () => {
        const found = /is at (http:\S+)\. Stop/.exec(output);
        if (found) resolve(found[1]);
      });
      child.on('exit', () => reject(new Error(output)));
    });
    const ended = new Promise((resolve) => child.on('exit', (code) => resolve({ code, output })));
    /** @param {RegExp} words @returns {Promise<string>} everything it said, once it has said this */
    const said = async (words) => {
      while (!words.test(output)) await new Promise((resolve) => setTimeout(resolve, 50));
      return output;
    };
    return { child, url, ended, said };
  }

  it('serves an empty shop, stops cleanly on Ctrl-C, and keeps everything for the next start within 10 s', async () => {
    const first = start('--empty');
    const url = await first.url;
    expect(await (await fetch(`${url}/api/people/session`)).json()).toMatchObject({
      needsFirstPerson: true,
      demoPeople: [],
    });
    expect((await fetch(url)).headers.get('content-type')).toMatch(/html/);
    const words = await first.said(/asked for this code/);
    const code = /asked for this code: (\d{4}-\d{4})/.exec(words)?.[1];
    for (const name of ['Packages', 'Server and pages built', 'Database', 'Server'])
      expect(words).toMatch(new RegExp(`^${name}( … |: )(\\d+ s … )*(\\d+\\.\\d s)?$`, 'm'));
    expect(words).toMatch(/^ {2}tables up to date: \d+\.\d s$/m);
    expect(words).toMatch(/^Only this machine can open it\./m);
    const person = { name: 'A. Founder', login: 'founder', password: 'long enough it is', code };
    const made = await fetch(`${url}/api/people/first`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(person),
    });
    expect(made.status).toBe(200);
    first.child.kill('SIGINT');
    expect(await first.ended).toMatchObject({
      code: 0,
      output: expect.stringMatching(/Stopped\. Everything is kept/),
    });

    const started = performance.now();
    const second = start('--empty');
    const again = await second.url;
    expect(performance.now() - started).toBeLessThan(10_000);
    expect(await (await fetch(`${again}/api/people/session`)).json()).toMatchObject({
      needsFirstPerson: false,
    });
    await expect(startPostgres(join(home, 'data'))).rejects.toThrow(
      /runs already, as process \d+: stop the Lanternwright/,
    );
    const verify = await run('node', ['scripts/records.mjs', 'verify'], {
      quiet: true,
      env: { ...process.env, LANTERNWRIGHT_DATA: join(home, 'data') },
    });
    expect(verify).toMatchObject({
      code: 0,
      output: expect.stringMatching(/^1 records in 1 streams, 1 seals/),
    });
    // What the shop knows is for its own account to read.
    const data = join(home, 'data');
    const backup = join(home, 'copies/shop.tar');
    const copied = await run('node', ['scripts/backups.mjs', 'backup', backup], {
      quiet: true,
      env: { ...process.env, LANTERNWRIGHT_DATA: data },
    });
    expect(copied.code, copied.output).toBe(0);
    const open = (/** @type {string} */ path) => (statSync(path).mode & 0o077).toString(8);
    for (const path of [
      backup,
      join(home, 'copies'),
      data,
      join(data, 'seals'),
      join(data, 'session-secret'),
    ])
      expect(`${path} ${open(path)}`).toBe(`${path} 0`);
    second.child.kill('SIGTERM');
    expect(await second.ended).toMatchObject({ code: 0 });
  });

  it.runIf(networkAddresses().length > 0)('is open to the network by --network, on a free port', async () => {
    const taken = createServer();
    await new Promise((resolve) => taken.listen(18_080, '127.0.0.1', () => resolve(null)));
    const run = start('--empty', '--network');
    const words = await run.said(/Tablets open it at/);
    expect(words).toMatch(/^Port 18080 is taken by something else: 180\d\d is used\.$/m);
    const tablets = /Tablets open it at (http:\S+?)(?:;| or)/.exec(words)?.[1] ?? '';
    expect((await fetch(`${tablets}/api/health`)).status).toBe(200);
    run.child.kill('SIGTERM');
    expect(await run.ended).toMatchObject({ code: 0 });
    taken.close();
  });
});

describe('a bad day', () => {
  const place = () => join(home, 'bad-day');
  /** @param {number} port @param {string[]} args */
  function start(port, args = ['--empty'], data = place(), more = {}) {
    const env = { ...process.env, PORT: String(port), LANTERNWRIGHT_DATA: data, ...more };
    const child = spawn('node', ['scripts/start.mjs', ...args], { cwd: root, env });
    let output = '';
    child.stdout.on('data', (d) => (output += d));
    child.stderr.on('data', (d) => (output += d));
    return { child, said: () => output, ended: new Promise((resolve) => child.on('exit', resolve)) };
  }
  /** @param {string} url @param {() => string} said */
  async function answers(url, said) {
    for (let i = 0; i < 400; i++) {
      const answer = await fetch(`${url}/api/people/session`).catch(() => null);
      if (answer?.ok) return answer.json();
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    throw new Error(`it does not answer: ${said()}`);
  }
  /** @param {number} pid @param {string} words @returns {number[]} children whose command has these words */
  const childrenOf = (pid, words) =>
    readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8')
      .split(' ')
      .filter(Boolean)
      .map(Number)
      .filter((child) => readFileSync(`/proc/${child}/cmdline`, 'utf8').includes(words));

  it('killed at any moment of its first start, the next start comes up whole', async () => {
    const demo = join(home, 'bad-day-demo');
    /** @param {ReturnType<typeof start>} run */
    const wholeAfter = async (run) => {
      const found = /is at (http:\S+)\. Stop/;
      while (!found.test(run.said())) await new Promise((resolve) => setTimeout(resolve, 100));
      return answers(found.exec(run.said())?.[1] ?? '', run.said);
    };
    // Moments inside initdb, the migration, and the demo data, which take about twelve seconds.
    for (const ms of [150, 500, 900, 1_400, 2_200, 3_500, 5_500, 8_500]) {
      const run = start(18_180, [], demo);
      await new Promise((resolve) => setTimeout(resolve, ms));
      run.child.kill('SIGKILL');
      await run.ended;
    }
    const last = start(18_180, [], demo);
    const session = await wholeAfter(last);
    expect(session).toMatchObject({ needsFirstPerson: false, shop: { name: 'Marrowbank Shared Works' } });
    expect(session.demoPeople).toHaveLength(9);
    last.child.kill('SIGINT');
    await last.ended;
    // A busy machine makes a demo for minutes: what takes this long hangs.
  }, 600_000);

  it('a server that cannot start says why, and leaves no database running behind it', async () => {
    const data = join(home, 'no-server');
    const run = start(18_190, ['--empty'], data, { LOG_LEVEL: 'loud' });
    expect(await run.ended).toBe(1);
    expect(run.said()).toMatch(/The server did not start: .*The setting LOG_LEVEL/);
    expect(existsSync(join(data, 'pg/postmaster.pid'))).toBe(false);
  });

  it('server and database come back by themselves; a pid file that names another process holds nothing up', async () => {
    const first = start(18_280);
    while (!/asked for this code/.test(first.said())) await new Promise((resolve) => setTimeout(resolve, 50));
    first.child.kill('SIGINT');
    await first.ended;
    writeFileSync(join(place(), 'pg/postmaster.pid'), `${process.pid}\n${place()}\n0\n5432\n`);
    const run = start(18_280);
    const url = 'http://127.0.0.1:18280';
    await answers(url, run.said);
    while (!/asked for this code/.test(run.said())) await new Promise((resolve) => setTimeout(resolve, 50));
    const pid = run.child.pid ?? 0;
    for (const [words, sentence] of [
      ['main.js', 'The server stopped by itself'],
      ['bin/postgres', 'The database stopped by itself'],
    ]) {
      const [child] = childrenOf(pid, words ?? '');
      process.kill(child ?? 0, 'SIGKILL');
      while (!run.said().includes(sentence ?? '')) await new Promise((resolve) => setTimeout(resolve, 50));
      expect(await answers(url, run.said)).toMatchObject({ needsFirstPerson: true });
    }
    run.child.kill('SIGINT');
    await run.ended;
  }, 120_000);
});

describe('the reckoner’s command line', () => {
  /** @param {string[]} args @param {string} [input] */
  function reckon(args, input = '') {
    const child = spawn('node', ['../scripts/reckon.mjs', ...args], { cwd: join(root, 'docs') });
    let out = '';
    let err = '';
    child.stdout.on('data', (d) => (out += d));
    child.stderr.on('data', (d) => (err += d));
    child.stdin.end(input);
    return new Promise((resolve) => child.on('close', (code) => resolve({ code, out, err })));
  }

  it('prints the result and nothing else', async () => {
    const input = { thread: { threadsPerInch: 12 }, turns: 1 };
    const { code, out, err } = await reckon(['nut-travel'], JSON.stringify(input));
    expect([code, err]).toEqual([0, '']);
    expect(JSON.parse(out).travelMm).toBeCloseTo(2.116667, 6);
  });

  it('lists and describes', async () => {
    const names = JSON.parse((await reckon(['list'])).out).map((/** @type {{ name: string }} */ c) => c.name);
    expect(names).toContain('nut-setting');
    expect(JSON.parse((await reckon(['describe', 'end-play'])).out)).toMatchObject({
      inputSchema: { type: 'object' },
      example: { cycles: expect.any(Array) },
    });
  });

  it.each([
    [
      'bad input',
      ['end-play'],
      '{"cycles":[{"pushMm":0}],"band":{"minMm":0,"maxMm":1}}',
      2,
      'cycles.0.pullMm',
    ],
    ['no JSON', ['end-play'], 'hello', 2, ''],
    ['an unknown name', ['guess'], '{}', 3, undefined],
  ])('%s', async (_what, args, input, status, path) => {
    const { code, out, err } = await reckon(args, input);
    expect([code, out]).toEqual([status, '']);
    expect(JSON.parse(err).error.issues[0]?.path).toBe(path);
  });
});
