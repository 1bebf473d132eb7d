import type { InstrumentMessage } from '@lanternwright/contract/instruments';

/** Where readings come from. A real instrument is another way to make one of these. */
export interface Instrument {
  /** @returns a function that ends the listening */
  listen: (listener: (message: InstrumentMessage) => void) => () => void;
  close: () => void;
}
