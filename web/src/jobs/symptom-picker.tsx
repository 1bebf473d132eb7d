import {
  CircleDashed,
  CornerUpRight,
  Droplet,
  Droplets,
  Flame,
  Hand,
  Nut,
  Sparkles,
  Thermometer,
  TriangleAlert,
  Vibrate,
  Volume2,
  Zap,
  type LucideIcon,
} from 'lucide-react';
import { driveVerdict, driveVerdicts, symptoms, type Symptom } from '@lanternwright/core/inspection';

const pictures: Record<Symptom, LucideIcon> = {
  pulls: CornerUpRight,
  lamp: TriangleAlert,
  smoke: Flame,
  noise: Volume2,
  shimmy: Vibrate,
  movement: Hand,
  'oil-on-tyre': Droplet,
  'oil-on-lining': Droplets,
  'cap-missing': CircleDashed,
  'metal-in-cap': Sparkles,
  'oil-hub-open': CircleDashed,
  'grease-cap-missing': CircleDashed,
  'hub-warmer': Thermometer,
  cracked: Zap,
  'nuts-missing': Nut,
  'dry-stain': Droplet,
  'weep-at-cap': Droplet,
};

/** Offered no more: whether a cap is missing on an oil hub or on a grease hub decides if the unit may move. */
const split: Symptom = 'cap-missing';

interface Props {
  noticed: readonly Symptom[];
  onChange: (noticed: Symptom[]) => void;
}

/** What the driver noticed, by picture and word, and whether the unit may move with it. */
export function SymptomPicker({ noticed, onChange }: Props) {
  const verdict = driveVerdict(noticed);
  return (
    <fieldset>
      <legend className="caption pb-1">What the driver noticed</legend>
      <div className="grid gap-2 sm:grid-cols-2">
        {(Object.entries(symptoms) as [Symptom, string][])
          .filter(([id]) => id !== split)
          .map(([id, label]) => {
            const Picture = pictures[id];
            const on = noticed.includes(id);
            return (
              <label
                key={id}
                className={`flex min-h-12 cursor-pointer items-center gap-2 rounded-md border px-3 text-14 has-focus-visible:outline-3 has-focus-visible:outline-lamp-edge ${on ? 'border-lamp-edge bg-lamp font-semibold' : 'border-edge bg-panel'}`}
              >
                <input
                  type="checkbox"
                  className="size-5 shrink-0 accent-pine"
                  checked={on}
                  onChange={() => onChange(on ? noticed.filter((s) => s !== id) : [...noticed, id])}
                />
                <Picture size={20} aria-hidden className="shrink-0 text-muted" />
                {label}
              </label>
            );
          })}
      </div>
      {noticed.length > 0 && (
        <p
          role="status"
          className={`pt-2 text-16 font-semibold ${verdict.verdict === 'drive' ? 'text-pine' : 'text-rust'}`}
        >
          {driveVerdicts[verdict.verdict]}.{' '}
          <span className="text-14 font-normal text-ink">
            {verdict.reason}. Whoever sees the unit decides.
          </span>
        </p>
      )}
    </fieldset>
  );
}
