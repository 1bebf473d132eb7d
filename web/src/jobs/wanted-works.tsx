import { useState } from 'react';
import {
  layerTitles,
  describeLayer,
  works,
  worksOf,
  type LayerId,
  type Stack,
  type Work,
} from '@lanternwright/core/stack';
import { Button } from '../ui/button.tsx';
import { chipLook } from '../ui/chip-look.ts';

/** What is wanted of one wheel end. */
export interface Wanted {
  works: readonly Work[];
  alreadyOff: readonly LayerId[];
  together: boolean;
}
export const nothingWanted: Wanted = { works: [], alreadyOff: [], together: false };

interface Props {
  /** Wheel ends of one axle that are chosen, with how each is built. */
  ends: readonly { position: string; stack: Stack }[];
  wanted: Readonly<Record<string, Wanted>>;
  onChange: (position: string, wanted: Wanted) => void;
}

const flip = <T,>(list: readonly T[], item: T): T[] =>
  list.includes(item) ? list.filter((x) => x !== item) : [...list, item];

/** How a wheel end comes in: what is off already, and whether wheel and hub come off in one. */
function AsItComes({ stack, wanted, set }: { stack: Stack; wanted: Wanted; set: (wanted: Wanted) => void }) {
  const hub = stack.some((l) => l.layer === 'hub') && stack.some((l) => l.layer === 'wheel');
  return (
    <details>
      <summary className="min-h-8 text-14">Already apart, or wheel and hub removed together</summary>
      <div role="group" aria-label="Off already" className="flex flex-wrap gap-2 pt-2">
        {stack.map((layer) => (
          <button
            key={layer.layer}
            type="button"
            aria-pressed={wanted.alreadyOff.includes(layer.layer)}
            title={describeLayer(layer)}
            onClick={() => set({ ...wanted, alreadyOff: flip(wanted.alreadyOff, layer.layer) })}
            className={chipLook(wanted.alreadyOff.includes(layer.layer))}
          >
            {layerTitles[layer.layer]} is off
          </button>
        ))}
        {hub && (
          <button
            type="button"
            aria-pressed={wanted.together}
            onClick={() => set({ ...wanted, together: !wanted.together })}
            className={chipLook(wanted.together)}
          >
            Wheel and hub in one, on a dolly
          </button>
        )}
      </div>
    </details>
  );
}

/** What is to be done on the chosen wheel ends of one axle; both sides alike until somebody says otherwise. */
export function WantedWorks({ ends, wanted, onChange }: Props) {
  const [apart, setApart] = useState(false);
  const groups = apart ? ends.map((e) => [e]) : [ends];
  return (
    <>
      {groups.map((group) => {
        const { position, stack } = group[0]!;
        const names = group.map((e) => e.position).join(' and ');
        const now = wanted[position] ?? nothingWanted;
        const set = (next: Wanted) => group.forEach((e) => onChange(e.position, next));
        return (
          <fieldset key={position} className="flex flex-col gap-2">
            <legend className="caption pb-1">What is to be done on {names}</legend>
            <div className="flex flex-wrap gap-2">
              {worksOf(stack).map((work) => (
                <button
                  key={work}
                  type="button"
                  aria-pressed={now.works.includes(work)}
                  onClick={() => set({ ...now, works: flip(now.works, work) })}
                  className={chipLook(now.works.includes(work))}
                >
                  {works[work]}
                </button>
              ))}
            </div>
            <AsItComes {...{ stack, wanted: now, set }} />
          </fieldset>
        );
      })}
      {ends.length > 1 && !apart && (
        <Button weight="quiet" className="self-start" onClick={() => setApart(true)}>
          Left and right differ
        </Button>
      )}
    </>
  );
}
