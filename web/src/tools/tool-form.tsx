import { v4 as uuid } from 'uuid';
import { z } from 'zod';
import type { ListedTool } from '@lanternwright/contract/tools';
import { formatTyped, parseQuantity, parseTogether } from '@lanternwright/core/quantity';
import { toolKinds, type Tool, type ToolKind } from '@lanternwright/core/tool';
import { LampForm } from '../lamp-form.tsx';
import { SelectField, TextField } from '../ui/field.tsx';
import { useRequestForm } from '../use-request-form.ts';
import { useSaveToolMutation } from './tools-api.ts';

const kinds = Object.keys(toolKinds) as [ToolKind, ...ToolKind[]];
const typedSchema = z.object({
  id: z.string(),
  kind: z.enum(kinds),
  code: z.string(),
  title: z.string(),
  until: z.string(),
  min: z.string(),
  max: z.string(),
  graduation: z.string(),
});
type Typed = z.output<typeof typedSchema>;

/** The tool that is typed, with what cannot be read at its field. */
const toolFormSchema = typedSchema.transform((typed, context): Tool => {
  const { id, kind, code, title, until } = typed;
  const common = { id, code: code.trim(), title: title.trim(), calibratedUntil: until || null };
  const wrong = (path: keyof Typed, message: string) => {
    context.addIssue({ code: 'custom', message, path: [path] });
    return z.NEVER;
  };
  if (kind === 'torque-wrench') {
    const range = { min: typed.min, max: typed.max };
    const { min, max } = parseTogether(range, ['Nm', 'lbf-ft', 'lbf-in'], 'Nm', 'unlabelled');
    if (!max.ok) return wrong('max', max.message);
    if (!min.ok) return wrong('min', min.message);
    return { ...common, kind, min: min.quantity, max: max.quantity };
  }
  if (kind === 'dial-indicator') {
    const graduation = parseQuantity(typed.graduation, ['in', 'mm', 'thou', 'um'], 'mm');
    if (!graduation.ok) return wrong('graduation', graduation.message);
    return { ...common, kind, graduation: graduation.quantity };
  }
  return { ...common, kind };
});

/** What the server calls the fields. */
const paths = {
  'tool.code': 'code',
  'tool.title': 'title',
  'tool.calibratedUntil': 'until',
  'tool.min.value': 'min',
  'tool.max.value': 'max',
  'tool.graduation.value': 'graduation',
} as const;

/** A tool in a form, with the version it was when it was opened; 0 of a new one. */
export interface ToolDraft {
  seenVersion: number;
  typed: Typed;
}

export const newTool = (): ToolDraft => ({
  seenVersion: 0,
  typed: {
    ...{ id: uuid(), kind: 'torque-wrench', code: '', title: '', until: '' },
    ...{ min: '', max: '', graduation: '' },
  },
});

/** A tool of the list, to be changed. */
export const draftOf = ({ tool, version }: ListedTool): ToolDraft => ({
  seenVersion: version,
  typed: {
    ...newTool().typed,
    ...{ id: tool.id, kind: tool.kind, code: tool.code, title: tool.title },
    until: tool.calibratedUntil ?? '',
    min: tool.kind === 'torque-wrench' ? formatTyped(tool.min) : '',
    max: tool.kind === 'torque-wrench' ? formatTyped(tool.max) : '',
    graduation: tool.kind === 'dial-indicator' ? formatTyped(tool.graduation) : '',
  },
});

/** Adds a tool to the list, or changes one; its kind stays. */
export function ToolForm({
  draft: { seenVersion, typed },
  onDone,
}: {
  draft: ToolDraft;
  onDone: () => void;
}) {
  const [saveTool, { isLoading, error }] = useSaveToolMutation();
  const { field, handleSubmit, watch } = useRequestForm(toolFormSchema, typed, error, paths);
  const known = typed.code !== '';
  const { kind, code } = watch();
  const save = handleSubmit(async (tool) => {
    const { data } = await saveTool({ seenVersion, tool });
    if (data) onDone();
  });
  return (
    <LampForm
      {...{ error, isLoading }}
      button={known ? `Save ${code}` : `Add ${code || 'it'}`}
      onSave={() => void save()}
      onCancel={onDone}
    >
      <h2 className="text-18">{known ? `Change ${typed.code}` : 'Add a tool'}</h2>
      <div className="grid gap-3 sm:grid-cols-3">
        <SelectField label="Kind" disabled={known} {...field('kind')}>
          {kinds.map((id) => (
            <option key={id} value={id}>
              {toolKinds[id]}
            </option>
          ))}
        </SelectField>
        <TextField label="Code on it" required {...field('code')} />
        <TextField label="What it is" required {...field('title')} />
        <TextField
          label="In calibration until"
          type="date"
          hint="Without a date it is not offered for work"
          {...field('until')}
        />
        {kind === 'torque-wrench' && (
          <>
            <TextField label="From, N·m or lbf·ft" className="figure" {...field('min')} />
            <TextField
              label="To"
              className="figure"
              hint="Offered for the upper 80 % of it (ISO 6789)"
              {...field('max')}
            />
          </>
        )}
        {kind === 'dial-indicator' && (
          <TextField label="Graduation" className="figure" placeholder="0.001 in" {...field('graduation')} />
        )}
      </div>
    </LampForm>
  );
}
