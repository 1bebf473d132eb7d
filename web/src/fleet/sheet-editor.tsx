import { useState } from 'react';
import {
  constructions,
  findProcedure,
  type Marked,
  type Family,
  type Sheet,
  procedures,
} from '@lanternwright/core/procedure';
import { useNewestSheets } from '../sheets/sheets-api.ts';
import { Button } from '../ui/button.tsx';
import { SelectField, TextField } from '../ui/field.tsx';
import { RangeFields } from './range-fields.tsx';
import { IntervalFields } from './interval-fields.tsx';
import { HubFields } from './hub-fields.tsx';
import { HeatFields, RetorqueField, SchoolFields, shop } from './shop-choices.tsx';
import { describeMark, nextPlaces, torques } from '@lanternwright/core/procedure';
import { typedNumber } from '@lanternwright/core/quantity';

const torqueUnits = ['lbf-ft', 'Nm'] as const;
const forceUnits = ['N', 'lbf'] as const;
const lengthUnits = ['in', 'mm', 'thou'] as const;

const MOST_HOLES = 12;

/** The cross-holes of the spindle, each by its angle; one hole there always is. */
function HoleFields({
  angles,
  onChange,
}: {
  angles: readonly number[];
  onChange: (angles: number[]) => void;
}) {
  const [text, setText] = useState(angles.map(String));
  const settle = (next: readonly string[]) => {
    const read = next.map((t) => typedNumber(t));
    if (read.every((a) => Math.abs(a) <= 360) && read.join() !== angles.join()) onChange(read);
  };
  const without = (at: number) => text.filter((_, i) => i !== at);
  return (
    <fieldset className="flex flex-wrap items-end gap-2">
      <legend className="caption pb-1">Angles of the cross-holes, degrees</legend>
      {text.map((t, at) => (
        <span key={at} className="flex items-center gap-1">
          <input
            aria-label={`Cross-hole ${at + 1}, degrees`}
            inputMode="decimal"
            className="figure min-h-12 w-20 rounded-md border border-edge bg-panel px-3 text-16"
            value={t}
            onChange={(e) => setText(text.map((x, i) => (i === at ? e.target.value : x)))}
            onBlur={() => settle(text)}
          />
          {text.length > 1 && (
            <Button
              weight="quiet"
              aria-label={`Remove cross-hole ${at + 1}`}
              onClick={() => {
                setText(without(at));
                settle(without(at));
              }}
            >
              Remove
            </Button>
          )}
        </span>
      ))}
      {text.length < MOST_HOLES && <Button onClick={() => setText([...text, ''])}>Add a hole</Button>}
    </fieldset>
  );
}

/** How the nut locks: slots and cross-holes, places of a washer, or any angle. */
function LockFields({ lock, onChange }: { lock: Sheet['lock']; onChange: (lock: Sheet['lock']) => void }) {
  const kinds = {
    castellated: { kind: 'castellated', slots: 6, holeAxesDeg: [0] },
    indexed: { kind: 'indexed', positionsPerTurn: 8, reversible: false },
    stepless: { kind: 'stepless' },
  } as const;
  return (
    <>
      <SelectField
        label="Locks by"
        value={lock?.kind ?? ''}
        onChange={(e) => {
          const chosen = e.target.value as keyof typeof kinds | '';
          const next = chosen && kinds[chosen];
          onChange(
            !next
              ? null
              : next.kind === 'castellated'
                ? { ...next, holeAxesDeg: [...next.holeAxesDeg] }
                : next,
          );
        }}
      >
        <option value="">Not named</option>
        <option value="castellated">Slots and a pin</option>
        <option value="indexed">Places of a washer or ring</option>
        <option value="stepless">Any angle</option>
      </SelectField>
      {lock?.kind === 'castellated' && (
        <>
          <TextField
            label="Slots"
            inputMode="numeric"
            defaultValue={lock.slots}
            onBlur={(e) =>
              Number(e.target.value) > 0 && onChange({ ...lock, slots: Math.round(Number(e.target.value)) })
            }
          />
          <HoleFields
            key={lock.holeAxesDeg.join()}
            angles={lock.holeAxesDeg}
            onChange={(holeAxesDeg) => onChange({ ...lock, holeAxesDeg })}
          />
        </>
      )}
      {lock?.kind === 'indexed' && (
        <>
          <TextField
            label="Places in a turn"
            inputMode="numeric"
            defaultValue={lock.positionsPerTurn}
            onBlur={(e) =>
              Number(e.target.value) > 0 &&
              onChange({ ...lock, positionsPerTurn: Math.round(Number(e.target.value)) })
            }
          />
          <label className="flex min-h-12 items-center gap-2 self-end text-14">
            <input
              type="checkbox"
              className="size-5 accent-pine"
              checked={lock.reversible}
              onChange={(e) => onChange({ ...lock, reversible: e.target.checked })}
            />
            Washer can be turned over
          </label>
        </>
      )}
    </>
  );
}

interface EditorProps {
  sheet: Sheet;
  onChange: (sheet: Sheet) => void;
  /** Whether another sheet may be taken instead, as on an axle. */
  choosing?: 'free' | 'fixed';
}

/** A sheet, every figure editable; on an axle it is taken from a family sheet. */
export function SheetEditor({ sheet, onChange, choosing = 'free' }: EditorProps) {
  const sheets = useNewestSheets();
  const set = (part: Partial<Sheet>) => onChange({ ...sheet, ...part });
  /** Thread, lock, studs and lubricant as the shop has them now. */
  const setMarked = (part: Partial<Pick<Sheet, Marked>>) => {
    const marks = Object.fromEntries(Object.keys(part).map((key) => [key, shop]));
    set({ ...part, marks: { ...sheet.marks, ...marks } });
  };
  const perInch = sheet.thread && 'threadsPerInch' in sheet.thread;
  const threadText = !sheet.thread
    ? ''
    : 'pitchMm' in sheet.thread
      ? String(sheet.thread.pitchMm)
      : String(sheet.thread.threadsPerInch);
  return (
    <div className="grid gap-3 sm:grid-cols-2 lg:grid-cols-4">
      {choosing === 'free' && (
        <div className="sm:col-span-2">
          <SelectField
            label="Construction and family sheet"
            value={sheet.sheetId}
            onChange={(e) => onChange(sheets.find((s) => s.sheetId === e.target.value)!)}
          >
            {(Object.keys(constructions) as Family[]).map((family) => (
              <optgroup key={family} label={`${family}. ${constructions[family]}`}>
                {sheets
                  .filter((s) => s.family === family)
                  .map((s) => (
                    <option key={s.sheetId} value={s.sheetId}>
                      {s.title}
                    </option>
                  ))}
              </optgroup>
            ))}
          </SelectField>
        </div>
      )}
      <TextField label="Nut" value={sheet.nut} onChange={(e) => set({ nut: e.target.value })} />
      <TextField
        label="Lubricant"
        value={sheet.lubricant.name}
        onChange={(e) => setMarked({ lubricant: { ...sheet.lubricant, name: e.target.value } })}
      />
      <div className="grid grid-cols-2 gap-2">
        <TextField
          label="Thread"
          inputMode="decimal"
          defaultValue={threadText}
          key={`${sheet.sheetId}/${perInch}`}
          onBlur={(e) => {
            const value = typedNumber(e.target.value);
            if (value > 0)
              setMarked({ thread: perInch === false ? { pitchMm: value } : { threadsPerInch: value } });
          }}
        />
        <SelectField
          label="Given as"
          value={perInch === false ? 'pitch' : 'tpi'}
          onChange={(e) =>
            setMarked({ thread: e.target.value === 'pitch' ? { pitchMm: 1.5 } : { threadsPerInch: 12 } })
          }
        >
          <option value="tpi">Threads per inch</option>
          <option value="pitch">Pitch in mm</option>
        </SelectField>
      </div>
      <RangeFields
        label="End-play band"
        value={sheet.band}
        units={lengthUnits}
        onChange={(band) => set({ band })}
      />
      {torques.map(([key, label]) => (
        <RangeFields
          key={`${sheet.sheetId}/${key}`}
          label={`${label}, torque`}
          value={sheet[key]}
          units={torqueUnits}
          onChange={(figure) => set({ [key]: figure })}
        />
      ))}
      <RangeFields
        label="Rolling torque, new bearings"
        value={sheet.rollingNew}
        units={torqueUnits}
        onChange={(rollingNew) => set({ rollingNew })}
      />
      <RangeFields
        label="Rolling torque, run-in bearings"
        value={sheet.rollingRunIn}
        units={torqueUnits}
        onChange={(rollingRunIn) => set({ rollingRunIn })}
      />
      <RangeFields
        label="Drag at a wheel stud"
        value={sheet.drag}
        units={forceUnits}
        onChange={(drag) => set({ drag })}
      />
      <RangeFields
        label="Pull at the steering arm, links off"
        value={sheet.swivelPull}
        units={forceUnits}
        onChange={(swivelPull) => set({ swivelPull })}
      />
      <RangeFields
        label="Shaft movement, in and out"
        value={sheet.shaftMovement}
        units={lengthUnits}
        onChange={(shaftMovement) => set({ shaftMovement })}
      />
      {sheet.family === 'C' && (
        <SelectField
          label="To the next lock place, where the nut meets none"
          value={sheet.nextPlace ?? ''}
          onChange={(e) =>
            set({ nextPlace: e.target.value === '' ? null : (e.target.value as 'on' | 'back') })
          }
        >
          <option value="">Not said</option>
          {Object.entries(nextPlaces).map(([id, words]) => (
            <option key={id} value={id}>
              {words}
            </option>
          ))}
        </SelectField>
      )}
      <SelectField
        label="Verified by"
        value={sheet.verifyBy}
        onChange={(e) => set({ verifyBy: e.target.value as Sheet['verifyBy'] })}
      >
        <option value="dial">The dial</option>
        <option value="dial-or-feel">The dial, or no movement felt</option>
        <option value="drag">Its drag</option>
        <option value="none">Nothing to measure</option>
      </SelectField>
      <TextField
        label="Wheel studs"
        inputMode="numeric"
        key={`${sheet.sheetId}/studs`}
        defaultValue={sheet.studs ?? ''}
        onBlur={(e) => {
          const studs = Math.round(Number(e.target.value));
          setMarked({ studs: studs >= 3 && studs <= 24 ? studs : null });
        }}
      />
      <TextField
        label="Back off, turns"
        inputMode="decimal"
        key={`${sheet.sheetId}/back-off`}
        defaultValue={sheet.backOff ? Math.abs(sheet.backOff.turns) : ''}
        hint={sheet.backOff ? describeMark(sheet.backOff) : 'No figure'}
        onBlur={(e) => {
          const turns = e.target.value.trim() === '' ? 0 : typedNumber(e.target.value);
          if (Number.isNaN(turns) || turns === Math.abs(sheet.backOff?.turns ?? 0)) return;
          set({ backOff: turns > 0 ? { turns: -turns, ...shop } : null });
        }}
      />
      <SelectField
        label="Procedure"
        value={sheet.procedureId ?? ''}
        onChange={(e) => set({ procedureId: e.target.value || null })}
      >
        <option value="">None yet</option>
        {procedures
          .filter((p) => p.family === sheet.family && p === findProcedure(p.id))
          .map((p) => (
            <option key={p.id} value={p.id}>
              {p.title}
            </option>
          ))}
      </SelectField>
      <LockFields key={sheet.sheetId} lock={sheet.lock} onChange={(lock) => setMarked({ lock })} />
      <HubFields key={`${sheet.sheetId}/hub`} {...{ sheet, set }} />
      <RetorqueField key={`${sheet.sheetId}/retorque`} {...{ sheet, set }} />
      <HeatFields key={`${sheet.sheetId}/heat`} {...{ sheet, set }} />
      <IntervalFields key={`${sheet.sheetId}/intervals`} {...{ sheet, set }} />
      <SchoolFields {...{ sheet, set }} />
    </div>
  );
}
