/** Any of a few choices, each a target for a gloved hand; none is ticked beforehand. */
export function CheckList<K extends string>({
  legend,
  choices,
  chosen,
  error,
  onChange,
}: {
  legend: string;
  choices: Readonly<Record<K, string>>;
  chosen: readonly K[];
  error: string | undefined;
  onChange: (chosen: K[]) => void;
}) {
  const names = Object.keys(choices) as K[];
  return (
    <fieldset>
      <legend className="caption pb-1">{legend}</legend>
      <div className="grid gap-x-6 sm:grid-cols-2">
        {names.map((name) => (
          <label key={name} className="flex min-h-12 items-center gap-3 text-14">
            <input
              type="checkbox"
              className="size-6 shrink-0 accent-pine"
              checked={chosen.includes(name)}
              onChange={(e) =>
                onChange(names.filter((n) => (n === name ? e.target.checked : chosen.includes(n))))
              }
            />
            {choices[name]}
          </label>
        ))}
      </div>
      {error && <p className="text-13 text-rust">{error}</p>}
    </fieldset>
  );
}
