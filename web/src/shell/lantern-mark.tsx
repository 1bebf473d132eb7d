/** The mark: a lantern, seen from the front. */
export function LanternMark({ size = 26 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 32 32" aria-hidden className="shrink-0">
      <path d="M11 11V8.5a5 5 0 0 1 10 0V11" className="fill-none stroke-lamp-edge" strokeWidth="2" />
      <path
        d="M8.6 11h14.8l2.2 16H6.4z"
        className="fill-none stroke-band-ink"
        strokeWidth="2"
        strokeLinejoin="round"
      />
      <circle cx="16" cy="19.4" r="5" className="fill-lamp-edge" />
      <circle cx="16" cy="19.4" r="1.8" className="fill-band" />
    </svg>
  );
}
