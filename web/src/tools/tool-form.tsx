import { v4 as uuid } from 'uuid';
import { z } from 'zod';
import type { ListedTool } from '@lanternwright/contract/tools';
import { formatTyped, parseQuantity, parseTogether } from '@lanternwright/core/quantity';
import {
  drives,
  isCalibrated,
  socketPoints,
  toolKinds,
  type Tool,
  type ToolKind,
} from '@lanternwright/core/tool';
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
  drive: z.string(),
  size: z.string(),
  points: z.string(),
  length: z.string(),
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
  const drive = drives.find((d) => d === typed.drive);
  if (kind === 'socket' || kind === 'adapter') {
    const sized = parseQuantity(kind === 'socket' ? typed.size : typed.length, ['mm', 'in'], 'mm');
    if (!sized.ok) return wrong(kind === 'socket' ? 'size' : 'length', sized.message);
    if (!drive) return wrong('drive', 'Choose its drive');
    const listed = { ...common, calibratedUntil: null, drive };
    if (kind === 'adapter') return { ...listed, kind, length: sized.quantity };
    const points = socketPoints.find((p) => String(p) === typed.points);
    return points ? { ...listed, kind, size: sized.quantity, points } : wrong('points', 'Choose its points');
  }
  if (kind === 'torque-wrench') {
    const range = { min: typed.min, max: typed.max };
    const { min, max } = parseTogether(range, ['Nm', 'lbf-ft', 'lbf-in'], 'Nm', 'unlabelled');
    if (!max.ok) return wrong('max', max.message);
    if (!min.ok) return wrong('min', min.message);
    const length = typed.length.trim() === '' ? null : parseQuantity(typed.length, ['mm', 'in'], 'mm');
    if (length?.ok === false) return wrong('length', length.message);
    return {
      ...{ ...common, kind, min: min.quantity, max: max.quantity },
      ...(drive ? { drive } : {}),
      ...(length ? { length: length.quantity } : {}),
    };
  }
  if (kind === 'dial-indicator') {
    const graduation = parseQuantity(typed.graduation, ['in', 'mm', 'thou', 'um'], 'mm');
    if (!graduation.ok) return wrong('graduation', graduation.message);
    return { ...common, kind, graduation: graduation.quantity };
  }
  return { ...common, kind };
});

/** What is asked of some kinds: whether the drive is optional, and what the length is. */
const ofKind: Record<ToolKind, { drive?: string; length?: string }> = {
  ...{ 'dial-indicator': {}, 'pull-scale': {}, thermometer: {} },
  'torque-wrench': { drive: ', optional', length: 'Grip to drive, optional' },
  socket: { drive: '' },
  adapter: { drive: '', length: 'Drive to nut' },
};

/** What the server calls the fields. */
const paths = {
  'tool.code': 'code',
  'tool.title': 'title',
  'tool.calibratedUntil': 'until',
  'tool.min.value': 'min',
  'tool.max.value': 'max',
  'tool.graduation.value': 'graduation',
  'tool.drive': 'drive',
  'tool.size.value': 'size',
  'tool.points': 'points',
  'tool.length.value': 'length',
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
    ...{ min: '', max: '', graduation: '', drive: '', size: '', points: '', length: '' },
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
    drive: 'drive' in tool ? (tool.drive ?? '') : '',
    size: tool.kind === 'socket' ? formatTyped(tool.size) : '',
    points: tool.kind === 'socket' ? String(tool.points) : '',
    length: 'length' in tool && tool.length ? formatTyped(tool.length) : '',
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
        {isCalibrated(kind) && (
          <TextField
            label="In calibration until"
            type="date"
            hint="Without a date it is not offered for work"
            {...field('until')}
          />
        )}
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
        {kind === 'socket' && (
          <>
            <TextField label="Across flats" className="figure" placeholder="2 5/8 in" {...field('size')} />
            <SelectField label="Points" {...field('points')}>
              <option value="">Choose</option>
              {socketPoints.map((n) => (
                <option key={n}>{n}</option>
              ))}
            </SelectField>
          </>
        )}
        {ofKind[kind].drive !== undefined && (
          <SelectField label={`Drive, in${ofKind[kind].drive}`} {...field('drive')}>
            <option value="">Unknown</option>
            {drives.map((d) => (
              <option key={d}>{d}</option>
            ))}
          </SelectField>
        )}
        {ofKind[kind].length !== undefined && (
          <TextField label={`${ofKind[kind].length}, mm`} className="figure" {...field('length')} />
        )}
        {kind === 'dial-indicator' && (
          <TextField label="Graduation" className="figure" placeholder="0.001 in" {...field('graduation')} />
        )}
      </div>
    </LampForm>
  );
}
