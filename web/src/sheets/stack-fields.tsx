import { useState } from 'react';
import { chambers } from '@lanternwright/core/brake';
import {
  alsoUndone,
  alsoUndoneIds,
  layerIds,
  layerSchema,
  layerTitles,
  describeLayer,
  stackSchema,
  studClasses,
  wheelThreads,
  type Layer,
  type LayerId,
  type Stack,
} from '@lanternwright/core/stack';
import { Button } from '../ui/button.tsx';
import { SelectField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { strokeTitles } from '../ui/brake-words.ts';

/** One thing that is said of a layer: a choice by its id, yes or no, or how many. */
type Choice = { key: string; label: string; choices: Record<string, string> };

const yesNo = { false: 'No', true: 'Yes' };
const none = { 0: 'None' };
const upTo = (from: number, to: number) =>
  Object.fromEntries(Array.from({ length: to - from + 1 }, (_, i) => [from + i, String(from + i)]));
const actuation = { air: 'Air', hydraulic: 'Hydraulic' };

const choicesOf: Record<LayerId, readonly Choice[]> = {
  wheel: [
    { key: 'kind', label: 'Mounted', choices: { single: 'Single', dual: 'Dual', sprocket: 'Sprocket' } },
    { key: 'pilot', label: 'Centred by', choices: { hub: 'The hub', stud: 'Its studs' } },
    {
      key: 'thread',
      label: 'Thread of the studs',
      choices: { undefined: 'Not said', ...Object.fromEntries(wheelThreads.map((t) => [t, t])) },
    },
    {
      key: 'class',
      label: 'Class of the studs',
      choices: { undefined: 'Not said', ...Object.fromEntries(studClasses.map((c) => [c, c])) },
    },
    {
      key: 'seat',
      label: 'Nuts seat on',
      choices: {
        undefined: 'Not said',
        flange: 'Their own washer, two-piece',
        ball: 'A ball seat',
        cone: 'A taper',
      },
    },
    { key: 'centringNuts', label: 'Tapered nuts that go first', choices: { ...none, ...upTo(1, 12) } },
    { key: 'leftHand', label: 'Left-hand thread on the left', choices: yesNo },
  ],
  cap: [
    {
      key: 'kind',
      label: 'Closed by',
      choices: {
        'oil-cap': 'Oil cap',
        'grease-cap': 'Grease cap',
        flange: 'Shaft flange',
        'hub-lock': 'Hub lock',
        carrier: 'Cover and planet carrier',
      },
    },
    { key: 'cones', label: 'Cone washers', choices: yesNo },
    { key: 'fasteners', label: 'Nuts or bolts', choices: { null: 'Not named', ...upTo(1, 32) } },
  ],
  'brake-outer': [
    { key: 'kind', label: 'Brake', choices: { disc: 'Caliper and rotor', drum: 'Drum and shoes' } },
    { key: 'by', label: 'Worked by', choices: actuation },
    {
      key: 'chamber',
      label: 'Chamber of an air brake',
      choices: {
        undefined: 'Asked at the caging',
        spring: 'With a spring brake',
        service: 'Service brake only',
      },
    },
    {
      key: 'chamberSize',
      label: 'Type of the chamber',
      choices: {
        undefined: 'Read at the brake',
        ...Object.fromEntries(chambers.map((c) => [c, `Type ${c}`])),
      },
    },
    {
      key: 'chamberStroke',
      label: 'Stroke of the chamber',
      choices: { undefined: 'Read at the brake', ...strokeTitles },
    },
    { key: 'adjuster', label: 'Adjuster', choices: yesNo },
    {
      key: 'adjusting',
      label: 'The adjuster is',
      choices: { undefined: 'Not said', manual: 'Set by hand', automatic: 'Automatic' },
    },
  ],
  nut: [
    {
      key: 'kind',
      label: 'Nut',
      choices: {
        A: 'Two nuts, locking washer',
        B: 'One-piece nut, lock ring',
        C: 'Nut, bearing spacer',
        D: 'Castellated nut',
        E: 'Staked nut',
        H: 'Two round nuts or lock plate',
        N: 'Nut or retainer, preloaded',
      },
    },
    { key: 'jammed', label: 'A second nut jams it', choices: yesNo },
    { key: 'setBy', label: 'A preloaded pair is set by', choices: { nut: 'Its nut', shims: 'Shims' } },
  ],
  hub: [
    { key: 'fill', label: 'Runs in', choices: { grease: 'Grease', oil: 'Oil' } },
    { key: 'studs', label: 'Studs', choices: { pressed: 'Pressed', swaged: 'Swaged' } },
    {
      key: 'carries',
      label: 'Carries',
      choices: { nothing: 'Nothing', drum: 'The drum', rotor: 'The rotor' },
    },
    { key: 'toneRing', label: 'Tone ring', choices: yesNo },
    { key: 'seal', label: 'Seal', choices: { lip: 'A lip on a journal', face: 'Two metal faces' } },
  ],
  'unit-hub': [
    {
      key: 'kind',
      label: 'Unit hub',
      choices: {
        bolted: 'Bolted to the knuckle',
        compact: 'Compact, on a spindle',
        drum: 'Drum and bearing in one',
      },
    },
    { key: 'sensor', label: 'Sensor lead', choices: yesNo },
  ],
  'seal-hub': [],
  'brake-inner': [
    { key: 'kind', label: 'Brake', choices: { shoes: 'Shoes', electric: 'Shoes and magnet' } },
    { key: 'by', label: 'Worked by', choices: { ...actuation, electric: 'Electric', overrun: 'Overrun' } },
  ],
  spindle: [{ key: 'kind', label: 'Spindle', choices: { bolted: 'Bolted', stub: 'Stub axle with kingpin' } }],
  shaft: [
    { key: 'kind', label: 'Shaft', choices: { 'c-clip': 'Held by a C-clip', driven: 'Driven, steered' } },
  ],
  axle: [],
  knuckle: [
    { key: 'splitSeal', label: 'Split seal', choices: yesNo },
    {
      key: 'joint',
      label: 'Shaft joint bared with it',
      choices: { none: 'None', universal: 'Universal joint', 'constant-velocity': 'Constant-velocity joint' },
    },
  ],
};

const plainWords: Record<string, unknown> = { true: true, false: false, null: null, undefined };

/** A value of a layer as its choice was picked: a word, yes or no, nothing, or a number. */
const valueOf = (picked: string): unknown =>
  picked in plainWords ? plainWords[picked] : /^\d+$/.test(picked) ? Number(picked) : picked;

/** A layer with what is usual of it. */
function bare(id: LayerId): Layer {
  const first = Object.fromEntries(
    choicesOf[id].map(({ key, choices }) => [key, valueOf(Object.keys(choices)[0]!)]),
  );
  return layerSchema.parse({ layer: id, ...first });
}

/**
 * The layers of a sheet, each with what is said of it, to add, change and take away. What cannot make a wheel end yet
 * stays on the page with the reason, and the sheet keeps what it had.
 */
export function StackFields({ stack, onChange }: { stack: Stack; onChange: (stack: Stack) => void }) {
  const [layers, setLayers] = useState(stack);
  const [refused, setRefused] = useState<string | null>(null);
  const take = (next: readonly Layer[]) => {
    const sorted = [...next].sort((a, b) => layerIds.indexOf(a.layer) - layerIds.indexOf(b.layer));
    setLayers(sorted);
    const read = stackSchema.safeParse(sorted);
    setRefused(read.success ? null : `It ${read.error.issues.map((i) => i.message).join(' and ')}`);
    if (read.success) onChange(sorted);
  };
  const missing = layerIds.filter((id) => !layers.some((l) => l.layer === id));
  return (
    <div className="flex flex-col gap-3" role="group" aria-label="Layers">
      {layers.map((layer) => (
        <details key={layer.layer} className="rounded-lg border border-edge bg-panel px-3 py-2">
          <summary className="min-h-11 text-14">
            <span className="font-semibold">{layerTitles[layer.layer]}</span>
            <span className="block text-13 text-muted">{describeLayer(layer)}</span>
          </summary>
          <div className="flex flex-col gap-2">
            {choicesOf[layer.layer].map(({ key, label, choices }) => (
              <SelectField
                key={key}
                label={label}
                value={String((layer as unknown as Record<string, unknown>)[key])}
                onChange={(e) => {
                  const changed = { ...layer, [key]: valueOf(e.target.value) } as Layer;
                  take(layers.map((l) => (l === layer ? changed : l)));
                }}
              >
                {Object.entries(choices).map(([id, words]) => (
                  <option key={id} value={id}>
                    {words}
                  </option>
                ))}
              </SelectField>
            ))}
            <fieldset>
              <legend className="caption">Also removed and refitted</legend>
              {alsoUndoneIds.map((id) => (
                <label key={id} className="flex min-h-10 items-center gap-2 text-14">
                  <input
                    type="checkbox"
                    className="size-5 accent-pine"
                    checked={layer.alsoUndone.includes(id)}
                    onChange={(e) => {
                      const others = layer.alsoUndone.filter((a) => a !== id);
                      const changed = { ...layer, alsoUndone: e.target.checked ? [...others, id] : others };
                      take(layers.map((l) => (l === layer ? changed : l)));
                    }}
                  />
                  {alsoUndone[id]}
                </label>
              ))}
            </fieldset>
            <Button
              weight="quiet"
              className="self-start"
              onClick={() => take(layers.filter((l) => l !== layer))}
            >
              Remove {layerTitles[layer.layer].toLowerCase()}
            </Button>
          </div>
        </details>
      ))}
      {refused && <Note tone="trouble">Not in the sheet yet. {refused}.</Note>}
      {missing.length > 0 && (
        <SelectField
          label="Add a layer"
          value=""
          onChange={(e) => e.target.value !== '' && take([...layers, bare(e.target.value as LayerId)])}
        >
          <option value="">Choose one</option>
          {missing.map((id) => (
            <option key={id} value={id}>
              {layerTitles[id]}
            </option>
          ))}
        </SelectField>
      )}
    </div>
  );
}
