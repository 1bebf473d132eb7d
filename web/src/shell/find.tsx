import {
  Combobox,
  ComboboxInput,
  ComboboxOption,
  ComboboxOptions,
  Dialog,
  DialogPanel,
} from '@headlessui/react';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import type { Capability } from '@lanternwright/core/access';
import { unitKinds } from '@lanternwright/core/axle-plan';
import { useUnitsQuery } from '../fleet/fleet-api.ts';
import { useJobsQuery } from '../jobs/jobs-api.ts';
import { useMay } from '../people/people-api.ts';
import { useSumsQuery } from '../reckoner/reckoner-api.ts';

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
    needs: 'see-sheets',
    key: 'sheets',
    to: '/fleet/sheets',
    title: 'Sheets',
    detail: 'What holds for each kind of wheel end',
  },
];

/** Units, open jobs and calculations whose words hold every word typed. */
function hitsFor(text: string, all: readonly Hit[]): Hit[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  return all
    .filter((h) => words.every((w) => `${h.title} ${h.detail}`.toLowerCase().includes(w)))
    .slice(0, MOST);
}

/** Find: opens with `/`, everything by keyboard. */
export function Find({ onClose }: { onClose: () => void }) {
  const navigate = useNavigate();
  const able = useMay();
  const { data: units = [] } = useUnitsQuery(undefined, { skip: !able('see-units') });
  const { data: jobs = [] } = useJobsQuery({ status: 'open', page: 1 }, { skip: !able('see-jobs') });
  const { data: sums = [] } = useSumsQuery(undefined, { skip: !able('run-sums') });
  const [text, setText] = useState('');
  const all = useMemo<Hit[]>(
    () => [
      ...units.map((u) => ({
        key: u.id,
        to: `/fleet/${u.id}`,
        title: u.name,
        detail: [unitKinds[u.kind], u.owner.name, u.plate].filter(Boolean).join(' · '),
      })),
      ...jobs.map((j) => ({
        key: j.id,
        to: `/jobs/${j.id}`,
        title: `Job ${j.number}, ${j.unit.name}`,
        detail: j.title,
      })),
      ...sums.map((c) => ({ key: c.name, to: `/reckoner/${c.name}`, title: c.title, detail: c.summary })),
    ],
    [units, jobs, sums],
  );
  const hits = hitsFor(text, [...all, ...pages.filter((p) => able(p.needs))]);
  return (
    <Dialog open onClose={onClose} className="relative z-30">
      <div className="fixed inset-0 bg-band/60" aria-hidden />
      <div className="fixed inset-x-0 top-[8vh] flex justify-center px-4">
        <DialogPanel className="w-full max-w-[620px] overflow-hidden rounded-lg border border-lamp-edge bg-panel">
          <Combobox
            onChange={(hit: Hit | null) => {
              if (!hit) return;
              onClose();
              void navigate(hit.to);
            }}
          >
            <ComboboxInput
              autoFocus
              aria-label="Find a unit, a job or a calculation"
              placeholder="Unit, plate, owner, job or calculation"
              className="min-h-14 w-full bg-lamp px-4 text-18 text-ink outline-none"
              onChange={(e) => setText(e.target.value)}
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
          </Combobox>
          {hits.length === 0 && (
            <p className="px-4 py-4 text-14 text-muted">
              Nothing is called that. Try part of a name or plate.
            </p>
          )}
        </DialogPanel>
      </div>
    </Dialog>
  );
}
