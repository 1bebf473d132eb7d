import { useEffect, useRef, useState } from 'react';
import type { InstrumentMessage } from '@lanternwright/contract/instruments';
import type { InstrumentLetters } from '@lanternwright/core/gauge';

type Reading = Extract<InstrumentMessage, { kind: 'reading' }>;

export interface Instruments {
  connected: boolean;
  /** What was wrong with the last line, if anything. */
  fault: string | null;
}

/** Listens to instruments of one kind while a step is open that can use them. */
export function useInstruments(
  letters: InstrumentLetters,
  onReading: (reading: Reading) => void,
): Instruments {
  const [state, setState] = useState<Instruments>({ connected: false, fault: null });
  const latest = useRef(onReading);
  useEffect(() => {
    latest.current = onReading;
  });
  useEffect(() => {
    if (typeof EventSource === 'undefined') return;
    const stream = new EventSource('/api/instruments/live');
    stream.onmessage = ({ data }: MessageEvent<string>) => {
      const message = JSON.parse(data) as InstrumentMessage;
      if (message.kind === 'state') setState({ connected: message.connected, fault: null });
      else if (message.kind === 'fault') setState({ connected: true, fault: message.reason });
      else if (message.letters === letters) {
        setState({ connected: true, fault: null });
        latest.current(message);
      }
    };
    stream.onerror = () => setState({ connected: false, fault: null });
    return () => stream.close();
  }, [letters]);
  return state;
}
