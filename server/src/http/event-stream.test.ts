import { EventEmitter } from 'node:events';
import type { Response } from 'express';
import { pino } from 'pino';
import { expect, it } from 'vitest';
import { metricReader } from '@lanternwright/core/quantity';
import { eventStreams } from './event-stream.ts';
import type { Viewer } from './viewer.ts';

const viewer: Viewer = {
  person: { id: 'p-1', name: 'M. Pellow', login: 'pellow', role: 'technician' },
  owners: 'all',
  units: metricReader,
  by: 'password',
  sessionId: 's-1',
};

/** An answer whose browser reads or does not; what it was sent is noted. */
class Browser extends EventEmitter {
  written = '';
  writableLength = 0;
  reads = true;
  gone: 'ended' | 'destroyed' | null = null;
  set = () => this;
  flushHeaders = () => undefined;
  write(text: string): void {
    this.written += text;
    if (!this.reads) this.writableLength += text.length;
  }
  end(): void {
    this.gone = 'ended';
    this.emit('close');
  }
  destroy(): void {
    this.gone = 'destroyed';
    this.emit('close');
  }
}
const answerOf = (browser: Browser) => browser as unknown as Response;

it('a browser that does not read loses its stream; the others go on', () => {
  const streams = eventStreams(() => Promise.resolve(true), pino({ level: 'silent' }));
  const [reader, sleeper] = [new Browser(), new Browser()];
  sleeper.reads = false;
  const all = [reader, sleeper].map((b) => streams.open(answerOf(b), viewer, () => undefined));
  for (let i = 0; i < 2_000; i++) for (const stream of all) stream.send({ text: 'x'.repeat(1_000) });
  expect([reader.gone, sleeper.gone]).toEqual([null, 'destroyed']);
  expect(sleeper.writableLength).toBeLessThan(1_100_000);
  expect(streams.count()).toBe(1);
  streams.endAll();
});

it('one person has so many at once and no more; each ends with the right to it, and only theirs', async () => {
  let holds = true;
  const streams = eventStreams(
    ({ person }) => Promise.resolve(person.id !== 'p-1' || holds),
    pino({ level: 'silent' }),
  );
  const closed: string[] = [];
  const open = (who: Viewer) => {
    const browser = new Browser();
    streams.open(answerOf(browser), who, () => closed.push(who.person.id));
    return browser;
  };
  const other = open({ ...viewer, person: { ...viewer.person, id: 'p-2' } });
  for (let i = 0; i < 40; i++) open(viewer);
  expect(() => open(viewer)).toThrow(/Too many pages/);
  await streams.recheck('p-1');
  expect(streams.count()).toBe(41);
  holds = false;
  await streams.recheck('p-1');
  expect(streams.count()).toBe(1);
  expect(closed).toEqual(Array(40).fill('p-1'));
  expect(other.gone).toBeNull();
  streams.endAll();
});
