import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { InstrumentMessage } from '@lanternwright/contract/instruments';
import { lineInstrument } from './line-instrument.ts';
import { startSimulator } from './simulator.ts';

let simulator: Awaited<ReturnType<typeof startSimulator>>;
beforeAll(async () => {
  simulator = await startSimulator({ socket: 0, page: 0 });
});
afterAll(() => simulator.stop());

/** Listens and waits for what is wanted. */
function ear(port = simulator.socketPort) {
  const heard: InstrumentMessage[] = [];
  const instrument = lineInstrument({ host: '127.0.0.1', port });
  const end = instrument.listen((m) => heard.push(m));
  const until = async (wanted: (m: InstrumentMessage) => boolean, ms = 5000) => {
    for (const started = Date.now(); Date.now() - started < ms;) {
      const found = heard.find(wanted);
      if (found) return found;
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
    throw new Error(`not heard; heard ${JSON.stringify(heard)}`);
  };
  return { heard, instrument, end, until };
}
const isUp = (m: InstrumentMessage) => m.kind === 'state' && m.connected;
const knobs = (path: string, body: object) =>
  fetch(`http://127.0.0.1:${simulator.pagePort}${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });

describe('an instrument behind a socket', () => {
  it('tells a reading that the knobs page sent', async () => {
    const { until, instrument } = ear();
    await until(isUp);
    expect(await (await knobs('/send', { line: 'DI-04 0.0031 in' })).text()).toMatch(/Sent to 1/);
    const reading = await until((m) => m.kind === 'reading');
    expect(reading).toMatchObject({ id: 'DI-04', letters: 'DI', quantity: { value: 0.0031, unit: 'in' } });
    instrument.close();
  });

  it('tells garbage, a wrong unit and what cannot be, and drops a line that bounced', async () => {
    const { until, heard, instrument } = ear();
    await until(isUp);
    for (const line of ['~~#garbage', 'DI-04 271 Nm', 'DI-04 3 in', 'TW-03 200 lbf-ft', 'TW-03 200 lbf-ft'])
      simulator.say(line);
    simulator.say('HT-01 64 degC');
    await until((m) => m.kind === 'reading' && m.letters === 'HT');
    expect(heard.flatMap((m) => (m.kind === 'fault' ? [m.reason] : []))).toEqual([
      expect.stringMatching(/not an instrument’s/),
      expect.stringMatching(/^DI-04/),
      expect.stringMatching(/out of a dial indicator’s range/),
    ]);
    expect(heard.filter((m) => m.kind === 'reading' && m.letters === 'TW')).toHaveLength(1);
    instrument.close();
  });

  it('says when the connection is lost, and finds it again', async () => {
    const { until, heard, instrument } = ear();
    await until(isUp);
    await knobs('/drop', {});
    await until((m) => m.kind === 'state' && !m.connected && heard.indexOf(m) > 1);
    heard.length = 0;
    await until(isUp);
    instrument.close();
  });

  it('is not there: says so and waits', async () => {
    const { heard, instrument, end } = ear(1);
    await new Promise((resolve) => setTimeout(resolve, 200));
    expect(heard).toEqual([{ kind: 'state', connected: false }]);
    end();
    instrument.close();
  });
});
