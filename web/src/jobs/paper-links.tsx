import { useState } from 'react';
import { jobPapers, type JobPaper } from '@lanternwright/contract/exchange';
import { useShop } from '../people/people-api.ts';
import { isPriced } from '@lanternwright/core/traveller';
import type { OpenJob } from './use-job.ts';

const sizes = { a4: 'A4', letter: 'Letter' } as const;
type Size = keyof typeof sizes;

/** The job on paper, of the shop's size until another is chosen. */
export function PaperLinks({ open }: { open: OpenJob }) {
  const paperOfShop = useShop()?.paper ?? 'a4';
  const [chosen, setSize] = useState<Size | null>(null);
  const size = chosen ?? paperOfShop;
  const papers = (Object.keys(jobPapers) as JobPaper[]).filter((p) => p !== 'estimate' || isPriced(open.job));
  return (
    <section aria-label="On paper" className="border-t border-rule pt-2">
      <div className="flex items-center justify-between">
        <h2 className="caption">On paper</h2>
        <span role="group" aria-label="Size of the paper" className="flex text-13">
          {(Object.keys(sizes) as Size[]).map((s) => (
            <button
              key={s}
              type="button"
              aria-pressed={s === size}
              className={`min-h-10 rounded-sm px-2 ${s === size ? 'bg-lamp font-semibold' : ''}`}
              onClick={() => setSize(s)}
            >
              {sizes[s]}
            </button>
          ))}
        </span>
      </div>
      <ul className="flex flex-wrap gap-x-4">
        {papers.map((paper) => (
          <li key={paper}>
            <a
              href={`/api/exchange/jobs/${open.job.id}/${paper}.pdf?size=${size}`}
              download
              className="flex min-h-12 items-center text-14 underline underline-offset-4"
            >
              {paper === 'estimate' && open.job.money.actual ? 'Bill' : jobPapers[paper]}
            </a>
          </li>
        ))}
      </ul>
    </section>
  );
}
