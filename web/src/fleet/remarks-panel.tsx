import { useState } from 'react';
import type { UnitDetail } from '@lanternwright/contract/fleet';
import { useMay } from '../people/people-api.ts';
import { Button } from '../ui/button.tsx';
import { AreaField } from '../ui/field.tsx';
import { useSetRemarksMutation } from './fleet-api.ts';
import { PanelForm } from './panel-form.tsx';

type Of = Pick<UnitDetail, 'id' | 'version' | 'remarks'>;

function RemarksForm({ unit, onDone }: { unit: Of; onDone: () => void }) {
  const [remarks, setRemarks] = useState(unit.remarks);
  const [save, { isLoading, error }] = useSetRemarksMutation();
  const keep = async () => {
    const answer = await save({ id: unit.id, seenVersion: unit.version, remarks });
    if (!answer.error) onDone();
  };
  return (
    <PanelForm {...{ error, isLoading, onDone }} button="Save the remarks" onSave={() => void keep()}>
      <AreaField
        label="Remarks"
        hint="Owners do not see them"
        value={remarks}
        onChange={(e) => setRemarks(e.target.value)}
      />
    </PanelForm>
  );
}

/** What the office knows of a unit; a supervisor writes it. */
export function RemarksPanel({ unit }: { unit: Of }) {
  const able = useMay();
  const [writing, setWriting] = useState(false);
  const mayWrite = able('change-fleet');
  if (!mayWrite && unit.remarks === '') return null;
  return (
    <section aria-label="Remarks">
      <h2 className="pb-1 text-16">Remarks</h2>
      {unit.remarks && !writing && <p className="text-14 whitespace-pre-line">{unit.remarks}</p>}
      {mayWrite &&
        (writing ? (
          <RemarksForm key={unit.version} unit={unit} onDone={() => setWriting(false)} />
        ) : (
          <Button weight="quiet" onClick={() => setWriting(true)}>
            {unit.remarks === '' ? 'Write remarks' : 'Change the remarks'}
          </Button>
        ))}
    </section>
  );
}
