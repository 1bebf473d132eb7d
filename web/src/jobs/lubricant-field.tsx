import type { Sheet } from '@lanternwright/core/procedure';
import { TextField } from '../ui/field.tsx';
import { Choices } from './step-form-parts.tsx';
import { useDraft } from './use-draft.ts';

/** The lubricant that goes in, asked for by the sheet or another; nameless until somebody has said which. */
export function useLubricant({ name: asked, kind }: Sheet['lubricant']) {
  const [which, choose] = useDraft<'asked' | 'another' | ''>('which', '');
  const [typed, type] = useDraft('another', '');
  const name = which === 'asked' ? asked : which === 'another' ? typed.trim() : '';
  const isOther = name !== '' && name.toLowerCase() !== asked.toLowerCase();
  return { name, isOther, field: { asked, kind, which, choose, typed, type } };
}

/** As the sheet asks, or another by its name. */
export function LubricantField({
  asked,
  kind,
  which,
  choose,
  typed,
  type,
}: ReturnType<typeof useLubricant>['field']) {
  return (
    <>
      <Choices
        legend={kind === 'grease' ? 'What goes in; never mix thickeners' : 'What goes in'}
        name="lubricant"
        choices={[
          ['asked', asked],
          ['another', 'Another'],
        ]}
        chosen={which}
        onChoose={choose}
      />
      {which === 'another' && (
        <TextField label="Which lubricant" value={typed} autoFocus onChange={(e) => type(e.target.value)} />
      )}
    </>
  );
}
