/** What a mark can say of a wheel end or a stage. Each has its own shape, colour and word. */
export type MarkState =
  | 'in-band'
  | 'tight'
  | 'loose'
  | 'repeat'
  | 'not-measured'
  | 'working'
  | 'out-of-service'
  | 'ahead'
  | 'trouble'
  | 'nothing';

export const stateWords: Record<MarkState, string> = {
  'in-band': 'in band',
  tight: 'tight',
  loose: 'loose',
  repeat: 'measure again',
  'not-measured': 'not measured',
  working: 'being worked on',
  'out-of-service': 'out of service',
  ahead: 'ahead',
  trouble: 'look here',
  nothing: 'nothing to do here',
};

export const stateStroke: Record<MarkState, string> = {
  'in-band': 'stroke-pine',
  tight: 'stroke-blue',
  loose: 'stroke-rust',
  repeat: 'stroke-ink',
  'not-measured': 'stroke-stone',
  working: 'stroke-lamp-edge',
  'out-of-service': 'stroke-ink',
  ahead: 'stroke-edge',
  trouble: 'stroke-rust',
  nothing: 'stroke-rule',
};

export const stateFill: Record<MarkState, string> = {
  'in-band': 'fill-pine-wash',
  tight: 'fill-blue-wash',
  loose: 'fill-rust-wash',
  repeat: 'fill-panel',
  'not-measured': 'fill-panel',
  working: 'fill-lamp',
  'out-of-service': 'fill-panel',
  ahead: 'fill-panel',
  trouble: 'fill-rust-wash',
  nothing: 'fill-panel',
};

function Shape({ state }: { state: MarkState }) {
  switch (state) {
    case 'in-band':
      return (
        <>
          <circle cx="8" cy="8" r="7" className="fill-pine" />
          <path
            d="M4.8 8.2l2.2 2.2 4.2-4.6"
            className="fill-none stroke-panel"
            strokeWidth="1.8"
            strokeLinecap="round"
            strokeLinejoin="round"
          />
        </>
      );
    case 'tight':
      return (
        <>
          <circle cx="8" cy="8" r="6" className="fill-panel stroke-blue" strokeWidth="2" />
          <path d="M10 4.6v6.8L4.2 8z" className="fill-blue" />
        </>
      );
    case 'loose':
      return (
        <>
          <circle cx="8" cy="8" r="6" className="fill-panel stroke-rust" strokeWidth="2" />
          <path d="M6 4.6v6.8L11.8 8z" className="fill-rust" />
        </>
      );
    case 'repeat':
      return (
        <>
          <circle cx="8" cy="8" r="6" className="fill-panel stroke-ink" strokeWidth="1.6" />
          <path d="M4 10l6-6M5 12.4L12.4 5M8.2 13L13 8.2" className="stroke-ink" strokeWidth="1" />
        </>
      );
    case 'not-measured':
      return (
        <circle
          cx="8"
          cy="8"
          r="6"
          className="fill-none stroke-stone"
          strokeWidth="1.6"
          strokeDasharray="2.6 2.2"
        />
      );
    case 'working':
      return <circle cx="8" cy="8" r="5.6" className="fill-lamp stroke-lamp-edge" strokeWidth="2.4" />;
    case 'out-of-service':
      return (
        <>
          <circle cx="8" cy="8" r="6" className="fill-none stroke-ink" strokeWidth="2" />
          <path d="M3.6 8h8.8" className="stroke-ink" strokeWidth="2" />
        </>
      );
    case 'ahead':
      return <circle cx="8" cy="8" r="1.8" className="fill-edge" />;
    case 'nothing':
      return <path d="M5.5 8h5" className="stroke-edge" strokeWidth="1.4" strokeLinecap="round" />;
    case 'trouble':
      return (
        <>
          <path
            d="M8 1.6l6.6 12H1.4z"
            className="fill-rust-wash stroke-rust"
            strokeWidth="1.6"
            strokeLinejoin="round"
          />
          <path d="M8 6v3.6M8 11.2v.8" className="stroke-rust" strokeWidth="1.6" strokeLinecap="round" />
        </>
      );
  }
}

/** The mark of a state. With `spoken` it carries its word for those who cannot see it. */
export function StateMark({
  state,
  size = 16,
  spoken,
}: {
  state: MarkState;
  size?: number;
  spoken?: string;
}) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 16 16"
      role={spoken ? 'img' : undefined}
      aria-label={spoken}
      aria-hidden={spoken ? undefined : true}
      className="shrink-0"
    >
      <Shape state={state} />
    </svg>
  );
}
