import type { Instruments } from './use-instruments.ts';

/** Whether an instrument is there, and what was wrong with its last line. */
export function InstrumentLine({ what, connected, fault }: Instruments & { what: string }) {
  if (!connected && !fault) return null;
  return (
    <p role="status" className={`text-13 ${fault ? 'text-rust' : 'text-muted'}`}>
      {fault ? `${fault}. Nothing was taken from it.` : `${what} connected: its send key fills the field.`}
    </p>
  );
}
