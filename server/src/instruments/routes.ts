import { randomUUID } from 'node:crypto';
import { Router } from 'express';
import { instrumentsRoutes, type InstrumentMessage } from '@lanternwright/contract/instruments';
import type { InstrumentLetters } from '@lanternwright/core/gauge';
import type { EventStream, EventStreams } from '../http/event-stream.ts';
import { HttpProblem, notFound } from '../http/problem.ts';
import { serve, serveEvents } from '../http/serve.ts';
import type { Instrument } from './instrument.ts';

interface Stream {
  id: string;
  events: EventStream;
  holder: { name: string; where: string };
}

/**
 * The stream of what the instruments say. An instrument belongs to one open step of one browser at a time: its
 * readings go there and nowhere else, and the others are told who has it.
 */
export function instrumentsFeed(instrument: Instrument, eventStreams: EventStreams) {
  const streams = new Map<string, Stream>();
  /** Every instrument that has spoken, with the stream that has it. */
  const known = new Map<string, { letters: InstrumentLetters; stream: string | null }>();
  const router = Router();

  const tell = ({ events }: Stream, message: InstrumentMessage) => events.send(message);
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

  serveEvents(router, instrumentsRoutes.live, ({ res, viewer, query }) => {
    let end = () => undefined as void;
    const events = eventStreams.open(res, viewer, () => {
      letGo(stream);
      end();
    });
    const stream: Stream = {
      id: randomUUID(),
      events,
      holder: { name: viewer.person.name, where: query.where },
    };
    streams.set(stream.id, stream);
    tell(stream, { kind: 'stream', stream: stream.id });
    for (const id of known.keys()) tellOf(stream, id);
    end = instrument.listen((message) => hear(stream, message));
  });

  serve(router, instrumentsRoutes.take, ({ body, viewer }) => {
    const stream = streams.get(body.stream);
    const entry = known.get(body.id);
    if (!stream || stream.events.viewer.person.id !== viewer.person.id || !entry)
      throw notFound('instrument');
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
    stop: () => instrument.close(),
  };
}
