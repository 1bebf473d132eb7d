import { useCallback, useEffect, useRef, useState } from 'react';
import type { InstrumentMessage } from '@lanternwright/contract/instruments';
import type { InstrumentLetters } from '@lanternwright/core/gauge';

type Message<K extends InstrumentMessage['kind']> = Extract<InstrumentMessage, { kind: K }>;
type Reading = Message<'reading'>;
type Known = Message<'instrument'>;

export interface Instruments {
  connected: boolean;
  /** What was wrong with the last line, or with taking one. */
  fault: string | null;
  /** Instruments of this kind that have spoken, with who has each. */
  known: readonly Known[];
  /** Takes one for the step that is open here. */
  take: (id: string) => void;
}

interface State {
  connected: boolean;
  fault: string | null;
  known: readonly Known[];
  stream: string | null;
}
const nothing: State = { connected: false, fault: null, known: [], stream: null };

/** What a message of the stream changes. */
function after(state: State, message: InstrumentMessage, letters: InstrumentLetters): State {
  switch (message.kind) {
    case 'stream':
      return { ...state, stream: message.stream };
    case 'state':
      return { ...state, connected: message.connected, fault: null };
    case 'fault':
      return { ...state, connected: true, fault: message.reason };
    case 'instrument': {
      if (message.letters !== letters) return state;
      const others = state.known.filter((k) => k.id !== message.id);
      return { ...state, known: [...others, message].sort((a, b) => a.id.localeCompare(b.id)) };
    }
    case 'reading':
      return { ...state, connected: true, fault: null };
  }
}

/**
 * Listens to instruments of one kind while a step is open that can use them. Readings come only from one that was
 * taken here; it is let go when the step closes.
 * @param where wheel end, step and job, as others are told who has it
 */
export function useInstruments(
  letters: InstrumentLetters,
  where: string,
  onReading: (reading: Reading) => void,
): Instruments {
  const [state, setState] = useState<State>(nothing);
  const latest = useRef(onReading);
  useEffect(() => {
    latest.current = onReading;
  });
  useEffect(() => {
    if (typeof EventSource === 'undefined') return;
    const stream = new EventSource(`/api/instruments/live?${new URLSearchParams({ where })}`);
    stream.onmessage = ({ data }: MessageEvent<string>) => {
      const message = JSON.parse(data) as InstrumentMessage;
      setState((before) => after(before, message, letters));
      if (message.kind === 'reading' && message.letters === letters) latest.current(message);
    };
    stream.onerror = () => setState(nothing);
    return () => stream.close();
  }, [letters, where]);
  const { stream, ...shown } = state;
  const take = useCallback(
    (id: string) => {
      const fault = (text: string) => setState((before) => ({ ...before, fault: text }));
      void fetch('/api/instruments/take', {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ stream, id }),
      }).then(
        async (answer) => {
          if (!answer.ok) fault(((await answer.json()) as { detail: string }).detail);
        },
        () => fault(`${id} cannot be taken: the server cannot be reached`),
      );
    },
    [stream],
  );
  return { ...shown, take };
}
