import type { ComponentProps } from 'react';
import { lipFacingIds, lipFacings, partKindIds, partKinds } from '@lanternwright/core/part';
import { SelectField } from '../ui/field.tsx';

type Chosen = Omit<ComponentProps<typeof SelectField>, 'label' | 'children'>;

/** What a part is. @param none what it says where nothing is chosen */
export function PartKindField({ none, ...field }: Chosen & { none: string }) {
  return (
    <SelectField label="What it is" {...field}>
      <option value="">{none}</option>
      {partKindIds.map((id) => (
        <option key={id} value={id}>
          {partKinds[id].title}
        </option>
      ))}
    </SelectField>
  );
}

/** How many lips a seal has, and where the main one looks. @param none what they say where nothing is chosen */
export function LipFields({ none, lips, facing }: { none: string; lips: Chosen; facing: Chosen }) {
  return (
    <>
      <SelectField label="Lips, optional" {...lips}>
        <option value="">{none}</option>
        {[1, 2, 3, 4].map((n) => (
          <option key={n}>{n}</option>
        ))}
      </SelectField>
      <SelectField label="The main lip looks" {...facing}>
        <option value="">{none}</option>
        {lipFacingIds.map((id) => (
          <option key={id} value={id}>
            {lipFacings[id]}
          </option>
        ))}
      </SelectField>
    </>
  );
}
