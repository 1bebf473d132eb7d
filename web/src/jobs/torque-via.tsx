import {
  formatFor,
  formatQuantity,
  formatTyped,
  type Quantity,
  typedNumber,
} from '@lanternwright/core/quantity';
import type { Tool } from '@lanternwright/core/tool';
import { torqueSetting, type TorqueVia } from '@lanternwright/core/torque';
import { ToolChips, useListedTool } from '../tools/tool-field.tsx';
import { TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useReader } from '../shell/use-reader.ts';

/** What stands between wrench and nut, as it was typed; `code` of an adapter that was chosen from the list. */
export interface ViaText {
  wrench: string;
  adapter: string;
  code: string;
  square: boolean;
  ratio: string;
  efficiency: string;
}
export const straight: ViaText = {
  ...{ wrench: '', adapter: '', code: '', square: false, ratio: '', efficiency: '90' },
};

/** A positive number as it is typed; null for what is none. */
const positive = (text: string) => {
  const value = typedNumber(text);
  return Number.isFinite(value) && value > 0 ? value : null;
};
const inMm = (length: Quantity) => Number((length.si * 1000).toFixed(2));

/** The length of a wrench that is on the list with it, mm. */
const listedLength = (wrench: Tool | undefined) =>
  wrench?.kind === 'torque-wrench' && wrench.length ? inMm(wrench.length) : null;

interface Read {
  /** Nothing where the wrench is on the nut. */
  via?: TorqueVia;
  /** Why it cannot be reckoned with what was typed. */
  why: string | null;
}

/** What stands between wrench and nut. What is half told is no straight wrench: it says what is missing. */
export function readVia({ wrench, adapter, code, square, ratio, efficiency }: ViaText, listed?: Tool): Read {
  const via: TorqueVia = {};
  if (adapter.trim() !== '') {
    const [lengthMm, wrenchLengthMm] = [positive(adapter), listedLength(listed) ?? positive(wrench)];
    if (!lengthMm) return { why: 'Enter the length of the adapter, in mm' };
    if (!wrenchLengthMm)
      return {
        why: 'Enter the length of the wrench: from the middle of the grip to the middle of its drive',
      };
    via.wrenchLengthMm = wrenchLengthMm;
    via.adapter = { lengthMm, angleDeg: square ? 90 : 0, ...(code ? { code } : {}) };
  }
  if (ratio.trim() !== '') {
    const [by, percent] = [positive(ratio), positive(efficiency)];
    if (!by || by < 1) return { why: 'Enter the ratio of the multiplier: 1 to …' };
    if (!percent || percent > 100) return { why: 'The efficiency of a multiplier is over 0 and up to 100 %' };
    via.multiplier = { ratio: by, efficiency: percent / 100 };
  }
  return { ...(via.adapter || via.multiplier ? { via } : {}), why: null };
}

/** Adapters of the tool list, those that go on the wrench first. */
function ListedAdapters({
  wrench,
  code,
  onChoose,
}: {
  wrench: Tool | undefined;
  code: string;
  onChoose: (adapter: Extract<Tool, { kind: 'adapter' }>) => void;
}) {
  const drive = wrench?.kind === 'torque-wrench' ? wrench.drive : undefined;
  const { tools, why } = useListedTool(code, { kind: 'adapter', ...(drive ? { drive } : {}) });
  if (tools.length === 0) return null;
  const fit = tools.flatMap((t) => (t.kind === 'adapter' && why(t) === null ? [t] : []));
  const unfit = tools.flatMap((t) => why(t) ?? []);
  return (
    <div className="flex flex-col gap-2 pt-2">
      <ToolChips
        label="Adapters on the tool list"
        tools={fit}
        chosen={fit.find((t) => t.code === code)}
        onChoose={onChoose}
      />
      {unfit.length > 0 && <p className="text-13 text-muted">{unfit.join('; ')}</p>}
    </div>
  );
}

/** What to set where an adapter or a multiplier stands between wrench and nut. */
export function TorqueViaFields({
  target,
  text,
  wrench,
  onChange,
}: {
  target: Quantity;
  text: ViaText;
  /** As the tool list has it. */
  wrench: Tool | undefined;
  onChange: (text: ViaText) => void;
}) {
  const reader = useReader();
  const { via, why } = readVia(text, wrench);
  const set = torqueSetting({ targetNm: target.si, ...via });
  const words = formatQuantity({ value: set.settingNm, unit: 'Nm' }, target.unit);
  const own = listedLength(wrench);
  const field = (key: 'wrench' | 'adapter' | 'ratio' | 'efficiency', label: string) => (
    <TextField
      label={label}
      className="figure"
      inputMode="decimal"
      value={text[key]}
      onChange={(e) =>
        onChange({ ...text, [key]: e.target.value, ...(key === 'adapter' ? { code: '' } : {}) })
      }
    />
  );
  return (
    <details className="rounded-lg border border-edge bg-panel px-4 py-3">
      <summary className="min-h-8 text-14">With an adapter or a multiplier</summary>
      <ListedAdapters
        wrench={wrench}
        code={text.code}
        onChoose={({ code, length }) =>
          onChange(
            code === text.code
              ? { ...text, adapter: '', code: '' }
              : { ...text, adapter: String(inMm(length)), code },
          )
        }
      />
      <div className="grid gap-3 pt-2 sm:grid-cols-4">
        {own === null ? (
          field('wrench', 'Wrench, mm')
        ) : (
          <p className="text-14">
            <span className="caption block">Wrench, as listed</span>
            <span className="figure text-18">{formatTyped({ value: own, unit: 'mm' })}</span>
          </p>
        )}
        {field('adapter', 'Adapter, mm')}
        {field('ratio', 'Multiplier, 1 to')}
        {field('efficiency', 'Its efficiency, %')}
      </div>
      <label className="flex min-h-12 items-center gap-2 text-14">
        <input
          type="checkbox"
          className="size-5"
          checked={text.square}
          onChange={(e) => onChange({ ...text, square: e.target.checked })}
        />
        The adapter stands square to the wrench, not in line with it
      </label>
      {why === null && (
        <p className="pt-2 text-16">
          Set <span className="figure font-semibold">{words}</span> for {formatFor(target, reader)} at the nut
        </p>
      )}
      {why !== null && <Note tone="trouble">{why}</Note>}
    </details>
  );
}
