import {
  describeTool,
  describeToolRefusal,
  toolKinds,
  whyNotTool,
  type Tool,
  type ToolUse,
} from '@lanternwright/core/tool';
import { formatDate } from '../shell/words.ts';
import { TextField } from '../ui/field.tsx';
import { useToolsQuery } from './tools-api.ts';
import { shopToday } from '../shell/words.ts';

/** The tool of a code as the list has it, and why it is not for this; nothing where it is not listed. */
export function useListedTool(code: string, use: Omit<ToolUse, 'today'>) {
  const { data } = useToolsQuery();
  const own = (data ?? []).filter((t) => t.tool.kind === use.kind);
  const tools = own.map((t) => t.tool);
  const missing = new Map(own.flatMap((t) => (t.missing ? [[t.tool.id, t.missing.since]] : [])));
  const listed = tools.find((t) => t.code.toLowerCase() === code.trim().toLowerCase());
  const why = (tool: Tool) => {
    const since = missing.get(tool.id);
    if (since) return `${tool.code} is missing since ${formatDate(since)}`;
    const refusal = whyNotTool(tool, { ...use, today: shopToday() });
    return refusal && describeToolRefusal(refusal);
  };
  return { tools, listed, unfit: listed ? why(listed) : null, why };
}

/** Graduation of a listed dial indicator, mm; 0 where it is not on the list. */
export function useGraduation(code: string): number {
  const { listed } = useListedTool(code, { kind: 'dial-indicator' });
  return listed?.kind === 'dial-indicator' ? listed.graduation.si * 1000 : 0;
}

/** Tools to tap one of. */
export function ToolChips<T extends Tool>({
  label,
  tools,
  chosen,
  onChoose,
}: {
  label: string;
  tools: readonly T[];
  chosen: T | undefined;
  onChoose: (tool: T) => void;
}) {
  return (
    <div role="group" aria-label={label} className="flex flex-wrap gap-2">
      {tools.map((t) => (
        <button
          key={t.id}
          type="button"
          aria-pressed={t === chosen}
          onClick={() => onChoose(t)}
          className={`min-h-12 rounded-md border px-3 text-left text-14 ${t === chosen ? 'border-lamp-edge bg-lamp font-semibold' : 'border-edge bg-panel'}`}
        >
          {t.code} <span className="figure text-12 text-muted">{describeTool(t)}</span>
        </button>
      ))}
    </div>
  );
}

interface Props {
  use: Omit<ToolUse, 'today'>;
  code: string;
  error?: string;
  onChange: (code: string) => void;
}

/** What it means that a tool is not on the shop's list. */
const unlistedHint = (kind: ToolUse['kind']) =>
  kind === 'torque-wrench'
    ? 'Not on the tool list, so its calibration is not known. What holds the wheel end on is then for a supervisor to release.'
    : 'Not on the tool list: the record will say that its calibration is not known';

/** The tool for a step: chosen from those in calibration and able to do it, or typed where it is not on the list. */
export function ToolField({ use, code, error, onChange }: Props) {
  const { tools, listed, unfit, why } = useListedTool(code, use);
  const able = tools.filter((t) => why(t) === null);
  const others = tools.filter((t) => why(t) !== null);
  const unlisted = code.trim() !== '' && !listed && tools.length > 0;
  return (
    <div className="flex flex-col gap-2">
      {able.length > 0 && (
        <ToolChips
          label={`${toolKinds[use.kind]}: those that can do this`}
          tools={able}
          chosen={listed}
          onChoose={(t) => onChange(t.code)}
        />
      )}
      <TextField
        label={toolKinds[use.kind]}
        value={code}
        placeholder={able[0]?.code ?? ''}
        onChange={(e) => onChange(e.target.value)}
        error={unfit ?? error}
        hint={
          listed?.calibratedUntil
            ? `${listed.title}, in calibration until ${formatDate(listed.calibratedUntil)}`
            : unlisted
              ? unlistedHint(use.kind)
              : undefined
        }
      />
      {others.length > 0 && (
        <details className="text-13 text-muted">
          <summary className="min-h-6">
            {others.length} {others.length === 1 ? 'is' : 'are'} not for this
          </summary>
          <ul>
            {others.map((t) => (
              <li key={t.id}>{why(t)}</li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}
