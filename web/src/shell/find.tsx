import {
  Combobox,
  ComboboxInput,
  ComboboxOption,
  ComboboxOptions,
  Dialog,
  DialogPanel,
} from '@headlessui/react';
import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import type { Found } from '@lanternwright/contract/fleet';
import { roles, type Capability } from '@lanternwright/core/access';
import { unitKinds } from '@lanternwright/core/axle-plan';
import { useFindQuery, useFleetQuery } from '../fleet/fleet-api.ts';
import { useJobsQuery } from '../jobs/jobs-api.ts';
import { useMay } from '../people/people-api.ts';
import { useSumsQuery } from '../reckoner/reckoner-api.ts';
import { usePaused } from './use-paused.ts';

interface Hit {
  key: string;
  to: string;
  title: string;
  detail: string;
}

const MOST = 12;

const pages: readonly (Hit & { needs: Capability })[] = [
  {
    needs: 'see-tools',
    key: 'tools',
    to: '/fleet/tools',
    title: 'Tools',
    detail: 'Torque wrenches, dials, their calibration',
  },
  {
    needs: 'see-stores',
    key: 'stores',
    to: '/stores',
    title: 'Stores',
    detail: 'Parts by number and by measuring, shortages, orders',
  },
  {
    needs: 'see-sheets',
    key: 'sheets',
    to: '/fleet/sheets',
    title: 'Sheets',
    detail: 'What holds for each kind of wheel end',
  },
];

/** Whose words hold every word typed. */
function hitsFor(text: string, all: readonly Hit[]): Hit[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  return all.filter((h) => words.every((w) => `${h.title} ${h.detail}`.toLowerCase().includes(w)));
}

const unitHit = (u: Pick<Found['units'][number], 'id' | 'name' | 'kind' | 'plate' | 'owner'>): Hit => ({
  key: u.id,
  to: `/fleet/${u.id}`,
  title: u.name,
  detail: [unitKinds[u.kind], u.owner, u.plate].filter(Boolean).join(' · '),
});
const jobHit = (j: Found['jobs'][number]): Hit => ({
  key: j.id,
  to: `/jobs/${j.id}`,
  title: `Job ${j.number}, ${j.unit}`,
  detail: j.open ? j.title : `${j.title} · closed`,
});

const partHit = (p: Found['parts'][number]): Hit => ({
  key: p.id,
  to: `/stores/${p.id}`,
  title: p.number,
  detail: `${p.title} · ${p.onHand} here`,
});

const toolHit = (t: Found['tools'][number]): Hit => ({
  key: t.id,
  to: '/fleet/tools',
  title: t.code,
  detail: t.title,
});

const orderHit = (o: Found['orders'][number]): Hit => ({
  key: o.id,
  to: `/stores/orders/${o.id}`,
  title: `Order ${o.number}`,
  detail: o.supplier,
});

const batchHit = (b: Found['batches'][number]): Hit => ({
  key: `${b.partId} ${b.batch}`,
  to: `/stores/${b.partId}?${new URLSearchParams({ batch: b.batch }).toString()}`,
  title: `Batch ${b.batch}`,
  detail: `${b.number}, ${b.title} · on ${b.units === 1 ? '1 unit' : `${b.units} units`}`,
});

const personHit = (p: Found['people'][number]): Hit => ({
  key: p.id,
  to: '/people',
  title: p.name,
  detail: roles[p.role],
});

/** What the server finds; without it, the units and jobs this device has. */
function useFound(text: string): { hits: Hit[]; onlyHere: boolean; isSettled: boolean } {
  const able = useMay();
  const asked = usePaused(text.trim());
  const { currentData, error } = useFindQuery({ text: asked }, { skip: asked === '' });
  const onlyHere = error !== undefined;
  /** Whether what is found is of what stands in the field now. */
  const isSettled = asked === text.trim() && (asked === '' || onlyHere || currentData !== undefined);
  const { data: fleet } = useFleetQuery({ page: 1 }, { skip: !onlyHere || !able('see-units') });
  const { data: jobs } = useJobsQuery({ status: 'open', page: 1 }, { skip: !onlyHere || !able('see-jobs') });
  if (asked === '') return { hits: [], onlyHere: false, isSettled };
  if (!onlyHere)
    return {
      hits: [
        ...(currentData?.units ?? []).map(unitHit),
        ...(currentData?.jobs ?? []).map(jobHit),
        ...(currentData?.parts ?? []).map(partHit),
        ...(currentData?.tools ?? []).map(toolHit),
        ...(currentData?.orders ?? []).map(orderHit),
        ...(currentData?.people ?? []).map(personHit),
        ...(currentData?.batches ?? []).map(batchHit),
      ],
      onlyHere,
      isSettled,
    };
  const here = [
    ...(fleet?.units ?? []).map((u) => unitHit({ ...u, owner: u.owner.name })),
    ...(jobs ?? []).map((j) => jobHit({ ...j, unit: j.unit.name, open: true })),
  ];
  return { hits: hitsFor(asked, here), onlyHere, isSettled };
}

/**
 * Find: opens with `/`, everything by keyboard.
 * @param begun what was typed before it stood
 */
export function Find({ onClose, begun = '' }: { onClose: () => void; begun?: string }) {
  const navigate = useNavigate();
  const able = useMay();
  const { data: sums = [] } = useSumsQuery(undefined, { skip: !able('run-sums') });
  const [text, setText] = useState(begun);
  const { hits: found, onlyHere, isSettled } = useFound(text);
  const places = pages.filter((p) => able(p.needs));
  const calculations = sums.map((c) => ({
    key: c.name,
    to: `/reckoner/${c.name}`,
    title: c.title,
    detail: c.summary,
  }));
  const hits = [...found, ...hitsFor(text, [...places, ...calculations])].slice(0, MOST);
  const go = (hit: Hit) => {
    onClose();
    void navigate(hit.to);
  };
  // Enter opens the first, once it is known what that is: somebody who types at once is not kept.
  const [isEntered, setEntered] = useState(false);
  const first = isEntered && isSettled ? hits[0] : undefined;
  useEffect(() => {
    if (first) go(first);
  });
  return (
    <Dialog open onClose={onClose} className="relative z-30">
      <div className="fixed inset-0 bg-band/60" aria-hidden />
      <div className="fixed inset-x-0 top-[8vh] flex justify-center px-4">
        <DialogPanel
          // At once: the list below would take the first Escape for itself.
          onKeyDownCapture={(e) => {
            if (e.key === 'Escape') onClose();
          }}
          className="w-full max-w-[620px] overflow-hidden rounded-lg border border-lamp-edge bg-panel"
        >
          <Combobox value={null} onChange={(hit: Hit | null) => hit && go(hit)}>
            {({ activeOption }) => (
              <>
                <ComboboxInput
                  autoFocus
                  displayValue={() => begun}
                  aria-label="Find a unit, a job, a part or a calculation"
                  placeholder="Unit, plate, owner, job, part, tool, order"
                  className="min-h-14 w-full bg-lamp px-4 text-18 text-ink outline-none"
                  onChange={(e) => {
                    setEntered(false);
                    setText(e.target.value);
                  }}
                  onKeyDown={(e) =>
                    e.key === 'Enter' && !activeOption && text.trim() !== '' && setEntered(true)
                  }
                />
                <ComboboxOptions static className="max-h-[60vh] overflow-y-auto">
                  {hits.map((hit) => (
                    <ComboboxOption
                      key={hit.key}
                      value={hit}
                      className="flex min-h-12 cursor-pointer items-center justify-between gap-4 border-t border-rule px-4 data-focus:bg-lamp"
                    >
                      <span className="text-16 font-semibold">{hit.title}</span>
                      <span className="truncate text-13 text-muted">{hit.detail}</span>
                    </ComboboxOption>
                  ))}
                </ComboboxOptions>
              </>
            )}
          </Combobox>
          {hits.length === 0 && (
            <p className="px-4 py-4 text-14 text-muted">
              Nothing is called that. Try part of a name or plate.
            </p>
          )}
          {onlyHere && (
            <p className="border-t border-rule px-4 py-3 text-13 text-muted">
              The server cannot be reached: only what this device has is looked through.
            </p>
          )}
        </DialogPanel>
      </div>
    </Dialog>
  );
}
