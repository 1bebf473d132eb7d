import { randomUUID } from 'node:crypto';
import { Router, type Response } from 'express';
import { z } from 'zod';
import { instrumentsRoutes, type InstrumentMessage } from '@lanternwright/contract/instruments';
import type { InstrumentLetters } from '@lanternwright/core/gauge';
import { openEventStream } from '../http/event-stream.ts';
import { HttpProblem, notFound } from '../http/problem.ts';
import { personOf, serve } from '../http/serve.ts';
import type { Instrument } from './instrument.ts';

interface Stream {
  id: string;
  res: Response;
  personId: string;
  holder: { name: string; where: string };
}

/** Where a browser uses an instrument, in its own words: wheel end, step and job. */
const whereSchema = z.string().trim().max(120).catch('');

/**
 * The stream of what the instruments say. An instrument belongs to one open step of one browser at a time: its
 * readings go there and nowhere else, and the others are told who has it.
 */
export function instrumentsFeed(instrument: Instrument) {
  const streams = new Map<string, Stream>();
  /** Every instrument that has spoken, with the stream that has it. */
  const known = new Map<string, { letters: InstrumentLetters; stream: string | null }>();
  const router = Router();

  const tell = ({ res }: Stream, message: InstrumentMessage) => {
    res.write(`data: ${JSON.stringify(message)}\n\n`);
  };
  const tellOf = (stream: Stream, id: string) => {
    const { letters, stream: held } = known.get(id)!;
    const holder = held === null ? null : (streams.get(held)?.holder ?? null);
    tell(stream, { kind: 'instrument', id, letters, holder, mine: held === stream.id });
  };
  const tellAll = (id: string) => streams.forEach((s) => tellOf(s, id));

  function hear(stream: Stream, message: InstrumentMessage): void {
    if (message.kind !== 'reading') return tell(stream, message);
    const { id, letters } = message;
    if (!known.has(id)) known.set(id, { letters, stream: null });
    const held = known.get(id)!.stream;
    if (held === stream.id) tell(stream, message);
    else if (held === null) tellOf(stream, id);
  }

  function letGo(stream: Stream): void {
    streams.delete(stream.id);
    for (const [id, entry] of known) {
      if (entry.stream !== stream.id) continue;
      entry.stream = null;
      tellAll(id);
    }
  }

  router.get('/api/instruments/live', (req, res) => {
    let end = () => undefined as void;
    let stream: Stream | null = null;
    openEventStream(res, () => {
      if (stream) letGo(stream);
      end();
    });
    const person = personOf(res)!;
    const holder = { name: person.name, where: whereSchema.parse(req.query['where']) };
    stream = { id: randomUUID(), res, personId: person.id, holder };
    const opened = stream;
    streams.set(opened.id, opened);
    tell(opened, { kind: 'stream', stream: opened.id });
    for (const id of known.keys()) tellOf(opened, id);
    end = instrument.listen((message) => hear(opened, message));
  });

  serve(router, instrumentsRoutes.take, ({ body, person }) => {
    const stream = streams.get(body.stream);
    const entry = known.get(body.id);
    if (!stream || stream.personId !== person.id || !entry) throw notFound('instrument');
    if (entry.stream !== null && entry.stream !== stream.id) {
      const { name, where } = streams.get(entry.stream)!.holder;
      throw new HttpProblem(409, 'Taken', `${body.id} is with ${name}${where ? `, ${where}` : ''}`);
    }
    entry.stream = stream.id;
    tellAll(body.id);
    return { ok: true as const };
  });

  return {
    router,
    stop(): void {
      for (const { res } of streams.values()) res.end();
      instrument.close();
    },
  };
}
