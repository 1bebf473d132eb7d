import { useState } from 'react';
import type { UnitDetail } from '@lanternwright/contract/fleet';
import { duties, dutyShares, type Duty, type SaidDuty } from '@lanternwright/core/due';
import { useMay } from '../people/people-api.ts';
import { Button } from '../ui/button.tsx';
import { useSetDutyMutation } from './fleet-api.ts';
import { PanelForm } from './panel-form.tsx';

const shareWords: Record<SaidDuty['share'], string> = {
  0.75: 'three quarters',
  0.5: 'half',
  0.25: 'a quarter',
};
const all = Object.entries(duties) as [Duty, string][];

/** What makes a unit's work come sooner, as a person says it. */
const describeDuties = (said: readonly SaidDuty[]) =>
  said.map((d) => `${duties[d.of].toLowerCase()}: ${shareWords[d.share]} of each interval`).join('; ');

function DutyForm({
  unit,
  onDone,
}: {
  unit: Pick<UnitDetail, 'id' | 'version' | 'duty'>;
  onDone: () => void;
}) {
  const [said, setSaid] = useState<Partial<Record<Duty, string>>>(
    Object.fromEntries(unit.duty.map((d) => [d.of, String(d.share)])),
  );
  const [setDuty, { isLoading, error }] = useSetDutyMutation();
  const save = async () => {
    const duty = all.flatMap(([of]): SaidDuty[] => {
      const share = dutyShares.find((s) => String(s) === said[of]);
      return share === undefined ? [] : [{ of, share }];
    });
    const answer = await setDuty({ id: unit.id, seenVersion: unit.version, duty });
    if (!answer.error) onDone();
  };
  return (
    <PanelForm {...{ error, isLoading, onDone }} button="Save" onSave={() => void save()}>
      {all.map(([of, words]) => (
        <label key={of} className="flex min-h-12 flex-wrap items-center justify-between gap-2 text-14">
          {words}
          <select
            aria-label={words}
            className="min-h-12 rounded-md border border-edge bg-panel px-2 text-14"
            value={said[of] ?? ''}
            onChange={(e) => setSaid({ ...said, [of]: e.target.value })}
          >
            <option value="">No</option>
            {dutyShares.map((share) => (
              <option key={share} value={share}>
                {shareWords[share]} of each interval
              </option>
            ))}
          </select>
        </label>
      ))}
      <p className="text-12 text-muted">
        Standing shortens months alone, water what it gets to: seals and bearings. A maker’s own interval for
        such duty wins.
      </p>
    </PanelForm>
  );
}

/** What makes the work of a unit come sooner; a supervisor says so. */
export function DutyPanel({ unit }: { unit: Pick<UnitDetail, 'id' | 'version' | 'duty'> }) {
  const able = useMay();
  const [changing, setChanging] = useState(false);
  return (
    <section aria-label="Duty">
      <h2 className="pb-1 text-16">Duty</h2>
      <p className="text-14">
        {unit.duty.length === 0 ? 'No extra duty: normal intervals apply.' : `${describeDuties(unit.duty)}.`}
      </p>
      {able('change-fleet') &&
        (changing ? (
          <DutyForm key={unit.version} unit={unit} onDone={() => setChanging(false)} />
        ) : (
          <Button weight="quiet" onClick={() => setChanging(true)}>
            Change its duty
          </Button>
        ))}
    </section>
  );
}
