import { useEffect, useRef, useState, type ClipboardEvent, type FormEvent } from 'react';
import { parseQuantity, quantity, type Quantity } from '@lanternwright/core/quantity';
import { describeTool } from '@lanternwright/core/tool';
import { InstrumentLine } from '../instruments/instrument-line.tsx';
import { useInstruments } from '../instruments/use-instruments.ts';
import { useAppSelector } from '../store.ts';
import { useListedTool } from '../tools/tool-field.tsx';
import { Button } from '../ui/button.tsx';
import { SelectField, TextField } from '../ui/field.tsx';
import { Keypad } from '../ui/keypad.tsx';
import { Note } from '../ui/problem-note.tsx';
import type { RuleUnit } from '../ui/thou-rule.tsx';
import { useDraft } from './use-draft.ts';
import { readPastedCycles } from './pasted-cycles.ts';
import type { OpenJob } from './use-job.ts';

const GAUGE = 'lanternwright.gauge';
const units = ['in', 'mm', 'thou', 'um'] as const;

interface Props {
  open: OpenJob;
  position: string;
  round: number;
  unit: RuleUnit;
  number: number;
}

const isField = (target: EventTarget | null) =>
  target instanceof HTMLInputElement ||
  target instanceof HTMLTextAreaElement ||
  target instanceof HTMLSelectElement;

/**
 * A gauge that types its digits like a keyboard: when they go to no field, the field of the reading takes
 * the focus, and with it the digit.
 */
function useGaugeKeys(field: () => HTMLInputElement | null): void {
  const latest = useRef(field);
  useEffect(() => {
    latest.current = field;
  });
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey || isField(e.target) || !/^[-\d.,]$/.test(e.key)) return;
      latest.current()?.focus({ preventScroll: true });
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
}

/** One cycle by keyboard: push, Enter, pull, Enter; or both with a space between and one Enter. Several at once by pasting from a gauge. */
export function CycleEntry({ open, position, round, unit, number }: Props) {
  const [push, setPush] = useDraft('push', '');
  const [pull, setPull] = useDraft('pull', '');
  const [gauge, setGauge] = useDraft('gauge', localStorage.getItem(GAUGE) ?? '');
  const [error, setError] = useState<{ push?: string; pull?: string; all?: string }>({});
  const [active, setActive] = useState<'push' | 'pull'>('push');
  const bay = useAppSelector((st) => st.preferences.bay);
  const { tools, listed, unfit, why } = useListedTool(gauge, { kind: 'dial-indicator' });
  const pushField = useRef<HTMLInputElement>(null);
  const pullField = useRef<HTMLInputElement>(null);

  const take = (
    pushed: Quantity,
    pulled: Quantity,
    source: 'typed' | 'pasted' | 'gauge',
    by = gauge,
  ): string | null => {
    const named = by.trim() === '' ? {} : { gauge: by.trim() };
    return open.send({
      kind: 'reading-taken',
      position,
      round,
      push: pushed,
      pull: pulled,
      source,
      ...named,
    });
  };
  const recorded = (pushed: Quantity, pulled: Quantity) => {
    const refused = take(pushed, pulled, 'typed');
    if (refused) return setError({ all: refused });
    localStorage.setItem(GAUGE, gauge.trim());
    setError({});
    setPush('');
    setPull('');
    pushField.current?.focus();
  };
  const go = () => {
    const both = pull.trim() === '' ? readPastedCycles(push, unit) : null;
    if (both?.ok && both.cycles[0]) return recorded(both.cycles[0].push, both.cycles[0].pull);
    const first = parseQuantity(push, units, unit);
    if (!first.ok) {
      pushField.current?.focus();
      return setError({ push: first.message });
    }
    if (pull.trim() === '' && document.activeElement !== pullField.current) {
      setError({});
      return pullField.current?.focus();
    }
    const second = parseQuantity(pull, units, first.quantity.unit);
    if (!second.ok) return setError({ pull: second.message });
    recorded(first.quantity, second.quantity);
  };
  const submit = (e: FormEvent) => {
    e.preventDefault();
    go();
  };
  const where = `${position} of ${open.detail.unit.name}`;
  const dial = useInstruments('DI', where, ({ id, quantity: read }) => {
    setGauge(id);
    const first = parseQuantity(push, units, unit);
    if (push.trim() === '' || !first.ok) {
      setPush(`${read.value} ${read.unit}`);
      pullField.current?.focus({ preventScroll: true });
      return;
    }
    const refused = take(first.quantity, read, 'gauge', id);
    setError(refused ? { all: refused } : {});
    setPush('');
    setPull('');
  });
  const paste = (e: ClipboardEvent) => {
    const text = e.clipboardData.getData('text');
    if (!/[\n\t;]|\d\s+[-+.\d]/.test(text.trim())) return;
    e.preventDefault();
    const read = readPastedCycles(text, unit);
    if (!read.ok) return setError({ all: `${read.message}. Nothing of it was recorded.` });
    for (const { push: p, pull: q } of read.cycles) {
      const refused = take(quantity(p.value, p.unit), quantity(q.value, q.unit), 'pasted');
      if (refused) return setError({ all: refused });
    }
    setError({});
  };
  const inPull = push.trim() !== '' && active === 'pull';
  const type = (change: (text: string) => string) => {
    (inPull ? setPull : setPush)(change(inPull ? pull : push));
    (inPull ? pullField : pushField).current?.focus({ preventScroll: true });
  };
  useGaugeKeys(() => (inPull ? pullField : pushField).current);
  return (
    <form
      onSubmit={submit}
      onPaste={paste}
      className="flex flex-col gap-3 rounded-lg border border-lamp-edge bg-lamp p-4 bay:gap-2 bay:p-3"
    >
      <p className="text-14 font-semibold">Cycle {number}</p>
      <div className="grid grid-cols-2 gap-3 sm:grid-cols-[1fr_1fr_1fr_auto] sm:items-start bay:grid-cols-3 bay:gap-2">
        <TextField
          ref={pushField}
          label={`Pushed in, ${unit}`}
          inputMode={bay ? 'none' : 'decimal'}
          className="figure"
          autoFocus
          value={push}
          onFocus={() => setActive('push')}
          onChange={(e) => setPush(e.target.value)}
          error={error.push}
        />
        <TextField
          ref={pullField}
          label={`Pulled out, ${unit}`}
          inputMode={bay ? 'none' : 'decimal'}
          className="figure"
          value={pull}
          onFocus={() => setActive('pull')}
          onChange={(e) => setPull(e.target.value)}
          error={error.pull}
        />
        {tools.length > 0 ? (
          <SelectField
            label="Gauge"
            value={listed?.code ?? gauge}
            error={unfit ?? undefined}
            onChange={(e) => setGauge(e.target.value)}
          >
            <option value="">Choose a gauge</option>
            {tools.map((t) => (
              <option key={t.id} value={t.code} disabled={why(t) !== null}>
                {t.code}, {describeTool(t)}
              </option>
            ))}
            {gauge !== '' && !listed && <option value={gauge}>{gauge}, not on the list</option>}
          </SelectField>
        ) : (
          <TextField
            label="Gauge"
            value={gauge}
            placeholder="DI-04"
            onChange={(e) => setGauge(e.target.value)}
          />
        )}
        <Button type="submit" weight="main" className="self-end sm:mt-5 bay:hidden">
          Record
        </Button>
      </div>
      {bay && (
        <Keypad
          onKey={(key) => type((text) => text + key)}
          onBack={() => type((text) => text.slice(0, -1))}
          onNext={go}
          next={inPull ? 'Record' : 'Next'}
        />
      )}
      <InstrumentLine what="Dial indicator" {...dial} />
      {error.all && <Note tone="trouble">{error.all}</Note>}
      <p className={`text-12 text-muted ${bay ? 'hidden' : ''}`}>
        Enter goes on. Both figures can be typed at once, with a space between: 0 .0031. Another unit may be
        typed with the figure: 4 thou, 0,10 mm. Lines of push and pull can be pasted.
      </p>
    </form>
  );
}
