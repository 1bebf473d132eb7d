import { Plus, X } from 'lucide-react';
import { useState } from 'react';
import { useReader } from '../shell/use-reader.ts';
import { SelectField, TextField, AreaField } from '../ui/field.tsx';
import { choiceWords, labelOf, formatNumber, unitOf } from '@lanternwright/core/reckoner';
import { parseNumber, typedNumber } from '@lanternwright/core/quantity';
import { StudyField } from './study-field.tsx';
import {
  choiceOf,
  choicesOf,
  isNumber,
  isTable,
  isTextOrNull,
  startValue,
  type JsonSchema,
} from './schema.ts';

interface Props {
  schema: JsonSchema;
  name: string;
  path: string;
  value: unknown;
  required: boolean;
  issues: Readonly<Record<string, string>>;
  onChange: (value: unknown) => void;
}

function NumberField({ name, path, value, required, issues, onChange }: Props) {
  const reader = useReader();
  const unit = unitOf(name, reader);
  const shown = typeof value === 'number' ? formatNumber(value, unit) : '';
  const [text, setText] = useState(shown);
  const [seen, setSeen] = useState({ value, unit });
  if (seen.value !== value || seen.unit !== unit) {
    setSeen({ value, unit });
    // What was typed stays as typed; a value from elsewhere, or another unit, is written anew.
    const typed = typedNumber(text) / (unit?.factor ?? 1);
    if (text.trim() === '' || typeof value !== 'number' || Math.abs(typed - value) > 1e-9 * Math.abs(value))
      setText(shown);
  }
  const change = (typed: string) => {
    setText(typed);
    if (typed.trim() === '' && !required) return onChange(undefined);
    const number = typedNumber(typed);
    if (typed.trim() !== '' && Number.isFinite(number)) onChange(number / (unit?.factor ?? 1));
  };
  const read = parseNumber(text);
  const wrong = text.trim() === '' ? required : !read.ok;
  return (
    <TextField
      label={`${labelOf(name)}${unit ? `, ${unit.label}` : ''}${required ? '' : ' (optional)'}`}
      className="figure"
      inputMode="decimal"
      value={text}
      onChange={(e) => change(e.target.value)}
      error={wrong && !read.ok ? read.message : issues[path]}
    />
  );
}

const numbersIn = (text: string) =>
  text
    .split(/[\s;]+/)
    .filter(Boolean)
    .map((t) => typedNumber(t));

function NumbersField({ name, path, value, required, issues, onChange }: Props) {
  const unit = unitOf(name, useReader());
  const list = Array.isArray(value) ? (value as number[]) : [];
  const shown = list.map((n) => formatNumber(n, unit)).join(' ');
  const [text, setText] = useState(shown);
  const [seen, setSeen] = useState(unit);
  if (seen !== unit) {
    setSeen(unit);
    setText(shown);
  }
  const bad = !numbersIn(text).every(Number.isFinite);
  const change = (typed: string) => {
    setText(typed);
    const numbers = numbersIn(typed);
    if (numbers.length === 0 && !required) return onChange(undefined);
    if (numbers.every(Number.isFinite)) onChange(numbers.map((n) => n / (unit?.factor ?? 1)));
  };
  return (
    <AreaField
      label={`${labelOf(name)}${unit ? `, ${unit.label}` : ''}`}
      className="figure"
      value={text}
      hint="One after another, separated by a space or a new line"
      error={
        bad
          ? 'Only figures'
          : (issues[path] ?? Object.entries(issues).find(([p]) => p.startsWith(`${path}.`))?.[1])
      }
      onChange={(e) => change(e.target.value)}
    />
  );
}

/** Names of things, separated by commas. */
function NamesField({ name, path, value, issues, onChange }: Props) {
  const [text, setText] = useState(() => (Array.isArray(value) ? value.join(', ') : ''));
  return (
    <TextField
      label={`${labelOf(name)}, separated by commas`}
      value={text}
      error={issues[path] ?? Object.entries(issues).find(([p]) => p.startsWith(`${path}.`))?.[1]}
      onChange={(e) => {
        setText(e.target.value);
        const names = e.target.value.split(',').map((part) => part.trim());
        onChange(names.filter((part) => part !== ''));
      }}
    />
  );
}

/** Any of a few choices. */
function ChecksField({ schema, name, value, onChange }: Props) {
  const held = Array.isArray(value) ? (value as unknown[]) : [];
  const choices = schema.items?.enum ?? [];
  return (
    <fieldset>
      <legend className="caption">{labelOf(name)}</legend>
      {choices.map((choice) => (
        <label key={String(choice)} className="flex min-h-11 items-center gap-2 text-14">
          <input
            type="checkbox"
            className="size-5 accent-pine"
            checked={held.includes(choice)}
            onChange={(e) =>
              onChange(choices.filter((c) => (c === choice ? e.target.checked : held.includes(c))))
            }
          />
          {choiceWords(choice)}
        </label>
      ))}
    </fieldset>
  );
}

function ListField(props: Props) {
  const { schema, name, path, value, issues, onChange } = props;
  const items = schema.items ?? {};
  const list = Array.isArray(value) ? (value as unknown[]) : [];
  if (isNumber(items)) return <NumbersField {...props} />;
  if (items.enum) return <ChecksField {...props} />;
  if (items.type === 'string') return <NamesField {...props} />;
  if (items.type === 'array')
    return (
      <StudyField
        value={value}
        error={Object.entries(issues).find(([p]) => p.startsWith(path))?.[1]}
        onChange={onChange}
      />
    );
  const set = (i: number, v: unknown) => onChange(list.map((old, k) => (k === i ? v : old)));
  return (
    <fieldset className="flex flex-col gap-3 border-l-2 border-rule pl-3">
      <legend className="caption pb-1">
        {labelOf(name)}
        {issues[path] && <span className="pl-2 text-rust">{issues[path]}</span>}
      </legend>
      {list.map((item, i) => (
        <div key={i} className="grid grid-cols-[1fr_auto] items-start gap-2 border-b border-rule pb-3">
          <div className={isTable(items) ? 'grid grid-cols-2 gap-2' : 'flex flex-col gap-2'}>
            <ObjectFields
              {...props}
              schema={items}
              path={`${path}.${i}`}
              value={item}
              onChange={(v) => set(i, v)}
            />
          </div>
          <button
            type="button"
            aria-label={`Take ${labelOf(name).toLowerCase()} ${i + 1} away`}
            className="mt-5 flex size-11 items-center justify-center rounded-md border border-edge bg-panel"
            onClick={() => onChange(list.filter((_, k) => k !== i))}
          >
            <X size={16} aria-hidden />
          </button>
        </div>
      ))}
      <button
        type="button"
        className="flex min-h-11 items-center gap-2 self-start rounded-md border border-edge bg-panel px-3 text-14"
        onClick={() => onChange([...list, list.at(-1) ?? startValue(items)])}
      >
        <Plus size={16} aria-hidden /> One more
      </button>
    </fieldset>
  );
}

function ObjectFields({ schema, path, value, issues, onChange }: Omit<Props, 'name' | 'required'>) {
  const held = (value ?? {}) as Record<string, unknown>;
  const set = (key: string, v: unknown) => {
    const rest = Object.fromEntries(Object.entries(held).filter(([k]) => k !== key));
    onChange(v === undefined ? rest : { ...rest, [key]: v });
  };
  return Object.entries(schema.properties ?? {}).map(([key, field]) =>
    field.const !== undefined ? null : (
      <SchemaField
        key={key}
        schema={field}
        name={key}
        path={path ? `${path}.${key}` : key}
        value={held[key]}
        required={(schema.required ?? []).includes(key)}
        issues={issues}
        onChange={(v) => set(key, v)}
      />
    ),
  );
}

function choiceName(schema: JsonSchema): string {
  const constant =
    Object.values(schema.properties ?? {}).find((p) => p.const !== undefined)?.const ?? schema.const;
  return constant !== undefined ? choiceWords(constant) : (schema.required ?? []).map(labelOf).join(', ');
}

function ChoiceField(props: Props) {
  const { schema, name, value, onChange } = props;
  const choices = choicesOf(schema);
  const at = choiceOf(schema, value);
  return (
    <div className="flex flex-col gap-3">
      <SelectField
        label={labelOf(name)}
        value={at}
        onChange={(e) => onChange(startValue(choices[Number(e.target.value)]!))}
      >
        {choices.map((c, i) => (
          <option key={i} value={i}>
            {choiceName(c)}
          </option>
        ))}
      </SelectField>
      {choices[at]?.type === 'object' && <ObjectFields key={at} {...props} schema={choices[at]} />}
    </div>
  );
}

/** One of a few words or figures. */
function EnumField({ schema, name, path, value, required, issues, onChange }: Props) {
  const choices = schema.enum ?? [];
  return (
    <SelectField
      label={labelOf(name)}
      value={String(value ?? '')}
      error={issues[path]}
      onChange={(e) => onChange(choices.find((v) => String(v) === e.target.value))}
    >
      {!required && <option value="">{schema.default === undefined ? 'none' : 'usual'}</option>}
      {choices.map((v) => (
        <option key={String(v)} value={String(v)}>
          {choiceWords(v)}
        </option>
      ))}
    </SelectField>
  );
}

/** One field of a calculation's input, made from its schema. */
function SchemaField(props: Props) {
  const { schema, name, path, value, required, issues, onChange } = props;
  if (isTextOrNull(schema))
    return (
      <TextField
        label={`${labelOf(name)} (optional)`}
        value={String(value ?? '')}
        onChange={(e) => onChange(e.target.value === '' ? null : e.target.value)}
        error={issues[path]}
      />
    );
  if (choicesOf(schema).length > 0) return <ChoiceField {...props} />;
  if (schema.enum) return <EnumField {...props} />;
  if (isNumber(schema)) return <NumberField {...props} />;
  if (schema.type === 'array') return <ListField {...props} />;
  if (schema.type === 'boolean') {
    return (
      <label className="flex min-h-11 items-center gap-2 text-14">
        <input
          type="checkbox"
          className="size-5 accent-pine"
          checked={value === true}
          onChange={(e) => onChange(e.target.checked)}
        />
        {labelOf(name)}
      </label>
    );
  }
  if (schema.type === 'object') {
    if (!required && value === undefined) {
      return (
        <button
          type="button"
          className="flex min-h-11 items-center gap-2 self-start rounded-md border border-edge bg-panel px-3 text-14"
          onClick={() => onChange(startValue(schema))}
        >
          <Plus size={16} aria-hidden /> {labelOf(name)}
        </button>
      );
    }
    return (
      <fieldset className="grid grid-cols-2 gap-3 border-l-2 border-rule pl-3">
        <legend className="caption pb-1">
          {name === '' ? '' : labelOf(name)}
          {!required && (
            <button type="button" className="pl-2 underline" onClick={() => onChange(undefined)}>
              without
            </button>
          )}
        </legend>
        <ObjectFields {...{ schema, path, value, issues, onChange }} />
      </fieldset>
    );
  }
  return (
    <TextField
      label={labelOf(name)}
      type={schema.format === 'date' ? 'date' : 'text'}
      value={String(value ?? '')}
      onChange={(e) => onChange(e.target.value === '' && !required ? undefined : e.target.value)}
      error={issues[path]}
    />
  );
}

/** The whole input of a calculation. */
export function InputForm({
  schema,
  value,
  issues,
  onChange,
}: Pick<Props, 'schema' | 'value' | 'issues' | 'onChange'>) {
  return (
    <div className="flex flex-col gap-4">
      <ObjectFields {...{ schema, value, issues, onChange }} path="" />
    </div>
  );
}
