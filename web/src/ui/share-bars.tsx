interface Props {
  bars: readonly { label: string; value: number; words: string; grave?: boolean }[];
  label: string;
}

/** Sizes side by side, each against the largest. */
export function ShareBars({ bars, label }: Props) {
  const largest = Math.max(...bars.map((b) => b.value), 1e-12);
  return (
    <dl className="grid grid-cols-[auto_1fr_auto] items-center gap-x-4 gap-y-2" aria-label={label}>
      {bars.map((b) => (
        <div key={b.label} className="contents">
          <dt className="text-14">{b.label}</dt>
          <dd className="h-5 rounded-sm bg-rule" aria-hidden>
            <div
              className={`h-5 rounded-sm ${b.grave ? 'bg-rust' : 'bg-pine'}`}
              style={{ width: `${Math.max(0, (b.value / largest) * 100)}%` }}
            />
          </dd>
          <dd className="figure text-14">{b.words}</dd>
        </div>
      ))}
    </dl>
  );
}
