import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions, Field, Label } from '@headlessui/react';
import { useState } from 'react';
import type { Found } from '@lanternwright/contract/fleet';
import { unitKinds } from '@lanternwright/core/axle-plan';
import { usePaused } from '../shell/use-paused.ts';
import { useFindQuery } from './fleet-api.ts';

export type FoundUnit = Found['units'][number];

interface Props {
  label: string;
  unit: FoundUnit | null;
  error?: string | undefined;
  onChange: (unit: FoundUnit | null) => void;
}

/** A unit, found by part of its name, plate or owner: a fleet is too long for a list. */
export function UnitPicker({ label, unit, error, onChange }: Props) {
  const [text, setText] = useState('');
  const asked = usePaused(text.trim());
  const { currentData } = useFindQuery({ text: asked }, { skip: asked === '' });
  const found = asked === '' ? [] : (currentData?.units ?? []);
  return (
    <Field className="flex min-w-0 flex-col gap-1">
      <Label className="caption">{label}</Label>
      <Combobox value={unit} by="id" onChange={onChange} onClose={() => setText('')}>
        <ComboboxInput
          displayValue={(u: FoundUnit | null) => u?.name ?? ''}
          placeholder="Part of its name or plate"
          autoComplete="off"
          aria-invalid={error ? true : undefined}
          className="min-h-12 w-full rounded-md border border-edge bg-panel px-3 text-16 text-ink focus:border-lamp-edge focus:bg-lamp aria-invalid:border-rust"
          onChange={(e) => setText(e.target.value)}
        />
        {asked !== '' && (
          <ComboboxOptions className="max-h-72 overflow-y-auto rounded-md border border-lamp-edge bg-panel">
            {found.map((u) => (
              <ComboboxOption
                key={u.id}
                value={u}
                className="flex min-h-12 cursor-pointer items-center justify-between gap-4 border-t border-rule px-3 data-focus:bg-lamp"
              >
                <span className="font-semibold">{u.name}</span>
                <span className="truncate text-13 text-muted">
                  {[unitKinds[u.kind], u.owner, u.plate].filter(Boolean).join(' · ')}
                </span>
              </ComboboxOption>
            ))}
            {currentData && found.length === 0 && (
              <p className="px-3 py-3 text-13 text-muted">No unit is called that.</p>
            )}
          </ComboboxOptions>
        )}
      </Combobox>
      {error && <p className="text-13 text-rust">{error}</p>}
    </Field>
  );
}
