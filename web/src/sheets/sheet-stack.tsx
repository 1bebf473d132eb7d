import { useState } from 'react';
import { axleRoles, type AxleRole } from '@lanternwright/core/axle-plan';
import { stackOfSheet, type Sheet } from '@lanternwright/core/procedure';
import { describeLayer, type BuiltAxle, type Stack } from '@lanternwright/core/stack';
import { Button } from '../ui/button.tsx';
import { SelectField } from '../ui/field.tsx';
import { StackFields } from './stack-fields.tsx';
import { StackView } from '../ui/stack-view.tsx';

const brakes = { drum: 'Drum', disc: 'Disc', none: 'None' } as const;
const wheels = { single: 'Single', dual: 'Dual' } as const;

const rowsOf = (stack: Stack) =>
  stack.map((layer) => ({
    id: layer.layer,
    title: describeLayer(layer),
    state: 'ahead' as const,
    words: layer.layer === 'axle' ? 'opened once for both sides' : '',
    target: false,
  }));

/** How a wheel end with this sheet is built: as the sheet holds it, or as its construction usually is on an axle. */
export function SheetStack({ sheet, onHold }: { sheet: Sheet; onHold?: (stack: Stack | null) => void }) {
  const [axle, setAxle] = useState<BuiltAxle>({ role: 'drive', wheels: 'single', brake: 'drum' });
  const shown = stackOfSheet(sheet, axle);
  const select = <K extends keyof BuiltAxle>(
    key: K,
    label: string,
    choices: Record<BuiltAxle[K], string>,
  ) => (
    <SelectField
      label={label}
      value={axle[key]}
      onChange={(e) => setAxle({ ...axle, [key]: e.target.value as BuiltAxle[K] })}
    >
      {(Object.entries(choices) as [string, string][]).map(([id, words]) => (
        <option key={id} value={id}>
          {words}
        </option>
      ))}
    </SelectField>
  );
  return (
    <section className="flex flex-col gap-3" aria-label="Stack">
      {shown ? (
        <StackView rows={rowsOf(shown)} caption="Stack, outside to inside" />
      ) : (
        <p className="text-14 text-rust">Its construction is not set: choose its procedure first.</p>
      )}
      {sheet.stack ? (
        <p className="text-13 text-muted">Held by this sheet, whatever axle it is on.</p>
      ) : (
        <>
          <p className="text-13 text-muted">As this construction usually is; it follows the axle it is on.</p>
          <div className="grid gap-2 sm:grid-cols-3">
            {select('role', 'On an axle that', axleRoles as Record<AxleRole, string>)}
            {select('wheels', 'Wheels', wheels)}
            {select('brake', 'Brake', brakes)}
          </div>
        </>
      )}
      {onHold && shown && (
        <div>
          {sheet.stack ? (
            <div className="flex flex-col gap-3">
              <StackFields stack={sheet.stack} onChange={onHold} />
              <Button onClick={() => onHold(null)}>Follow the axle again</Button>
            </div>
          ) : (
            <Button onClick={() => onHold(shown)}>Save this stack to the sheet</Button>
          )}
        </div>
      )}
    </section>
  );
}
