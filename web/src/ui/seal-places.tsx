/** A distance of the drawing, between two places along the spindle, with its letter. */
function Distance({ from, to, y, letter }: { from: number; to: number; y: number; letter: string }) {
  return (
    <g className="stroke-ink" strokeWidth="1">
      <line x1={from} x2={to} y1={y} y2={y} />
      {[from, to].map((x) => (
        <line key={x} x1={x} x2={x} y1={y - 5} y2={y + 5} />
      ))}
      <text
        x={(from + to) / 2}
        y={y - 5}
        textAnchor="middle"
        className="fill-ink stroke-none text-14 font-semibold"
      >
        {letter}
      </text>
    </g>
  );
}

const SHOULDER = 330;

/** What is measured for a seal with the hub off: a half section of hub and spindle, the wheel to the right. */
export function SealPlaces() {
  return (
    <svg
      viewBox="0 0 560 236"
      role="img"
      aria-label="Half sections of hub and spindle. A: from the hub’s seal face to the inner bearing. B and C: from the spindle’s shoulder, inboard, to where sound journal begins and ends. D and E: to the edges of the old groove."
      className="w-full max-w-[560px]"
    >
      <text x="8" y="18" className="fill-muted text-13">
        Hub, on the bench
      </text>
      <path d="M180 30 H470 V92 H400 V66 H330 V52 H180 Z" className="fill-side stroke-edge" />
      <rect x="330" y="66" width="70" height="26" className="fill-panel stroke-ink" />
      <text x="365" y="84" textAnchor="middle" className="fill-ink text-12">
        bearing
      </text>
      <Distance from={180} to={SHOULDER} y={84} letter="A" />
      <text x="8" y="128" className="fill-muted text-13">
        Spindle, inboard to the left
      </text>
      <path
        d="M60 218 V150 H250 V154 H270 V150 H330 V166 H420 V186 H540 V218 Z"
        className="fill-side stroke-edge"
      />
      <line x1={SHOULDER} x2={SHOULDER} y1="138" y2="218" className="stroke-ink" strokeDasharray="3 3" />
      <text x={SHOULDER + 6} y="150" className="fill-ink text-12">
        shoulder
      </text>
      <Distance from={300} to={SHOULDER} y={206} letter="B" />
      <Distance from={130} to={SHOULDER} y={182} letter="C" />
      <Distance from={270} to={SHOULDER} y={138} letter="D" />
      <Distance from={250} to={SHOULDER} y={122} letter="E" />
    </svg>
  );
}
