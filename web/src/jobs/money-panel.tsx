import { useState } from 'react';
import { billDifferences, billTotals, formatMoney, writtenAnew, type Bill } from '@lanternwright/core/cost';
import { ownerAnswers, type Job, type OwnerAnswer } from '@lanternwright/core/traveller';
import { works, type Work } from '@lanternwright/core/stack';
import { problemText } from '../api.ts';
import { Approved, linesOf } from '../estimates/approved.tsx';
import { useLazyDraftEstimateQuery } from '../estimates/estimates-api.ts';
import { useShop } from '../people/people-api.ts';
import { formatTime } from '../shell/words.ts';
import { useJobPartsQuery } from '../stores/stores-api.ts';
import { Button } from '../ui/button.tsx';
import { SelectField, TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { BillForm } from './bill-form.tsx';
import { BillView } from './bill-view.tsx';
import { withUsedParts } from './used-parts.ts';
import type { OpenJob } from './use-job.ts';

/** What an estimate begins with where the shop's own reckoning cannot be fetched. */
const blankEstimate = (job: Job, currency: string): Bill => ({
  currency,
  lines: [{ group: 'labour', what: job.title, per: 'wheel', quantity: job.wheelEnds.length, unitMinor: 0 }],
  suppliesPercent: 0,
  taxes: [],
});

function Answer({ open }: { open: OpenJob }) {
  const [answer, setAnswer] = useState<OwnerAnswer | ''>('');
  const [name, setName] = useState('');
  const [until, setUntil] = useState('');
  const [risk, setRisk] = useState('');
  const [lines, setLines] = useState<Readonly<Record<string, LineAnswer>>>({});
  const [error, setError] = useState<string | null>(null);
  const asked = linesOf(open.job);
  const save = () => {
    if (answer === '') return setError('Choose what the owner answered');
    if (name.trim() === '') return setError('Enter who answered for the owner');
    const more =
      answer === 'defer'
        ? { ...(until ? { until } : {}), ...(risk.trim() ? { risk: risk.trim() } : {}) }
        : {};
    const apart = Object.entries(lines).flatMap(([key, line]) => {
      if (line.answer === 'do-now' || answer !== 'do-now') return [];
      const [position, work] = key.split('/') as [string, Work];
      const later =
        line.answer === 'defer'
          ? { ...(line.until ? { until: line.until } : {}), ...(line.risk ? { risk: line.risk.trim() } : {}) }
          : {};
      return [{ position, work, answer: line.answer, ...later }];
    });
    const works = apart.length > 0 ? { works: apart } : {};
    setError(open.send({ kind: 'owner-answered', answer, name: name.trim(), ...more, ...works }));
  };
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        save();
      }}
    >
      <div className="grid gap-3 sm:grid-cols-2">
        <SelectField
          label="The owner’s answer"
          value={answer}
          onChange={(e) => setAnswer(e.target.value as OwnerAnswer | '')}
        >
          <option value="">Choose</option>
          {Object.entries(ownerAnswers).map(([id, label]) => (
            <option key={id} value={id}>
              {label}
            </option>
          ))}
        </SelectField>
        <TextField label="Who answered" value={name} onChange={(e) => setName(e.target.value)} />
        {answer === 'defer' && (
          <>
            <TextField label="Until" type="date" value={until} onChange={(e) => setUntil(e.target.value)} />
            <TextField
              label="The risk, named"
              value={risk}
              placeholder="The seal may let go on the road"
              onChange={(e) => setRisk(e.target.value)}
            />
          </>
        )}
      </div>
      {answer === 'do-now' && <LineAnswers job={open.job} lines={lines} onChange={setLines} />}
      {answer === 'do-now' && (
        <Approved
          lines={asked}
          answers={Object.fromEntries(asked.map(({ key }) => [key, lines[key] ?? { answer }]))}
          bill={open.job.money.estimate!.bill}
          isOwner={false}
        />
      )}
      {error && <Note tone="trouble">{error}</Note>}
      <div>
        <Button type="submit" weight="main">
          Record the answer
        </Button>
      </div>
    </form>
  );
}

interface LineAnswer {
  answer: OwnerAnswer;
  until?: string;
  risk?: string;
}

/** Works that the owner answers otherwise than the whole: off the route, or deferred with a date and a risk. */
function LineAnswers({
  job,
  lines,
  onChange,
}: {
  job: Job;
  lines: Readonly<Record<string, LineAnswer>>;
  onChange: (lines: Record<string, LineAnswer>) => void;
}) {
  const rows = job.wheelEnds.flatMap((w) =>
    w.plan.works.length > 1
      ? w.plan.works.map((work) => ({
          key: `${w.position}/${work}`,
          title: `${w.position}, ${works[work].toLowerCase()}`,
        }))
      : [],
  );
  if (rows.length === 0) return null;
  const set = (key: string, part: Partial<LineAnswer>) =>
    onChange({ ...lines, [key]: { answer: 'do-now', ...lines[key], ...part } });
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="caption pb-1">Answer line by line</legend>
      {rows.map(({ key, title }) => (
        <div key={key} className="grid gap-2 sm:grid-cols-3">
          <SelectField
            label={title}
            value={lines[key]?.answer ?? 'do-now'}
            onChange={(e) => set(key, { answer: e.target.value as OwnerAnswer })}
          >
            {Object.entries(ownerAnswers).map(([id, label]) => (
              <option key={id} value={id}>
                {label}
              </option>
            ))}
          </SelectField>
          {lines[key]?.answer === 'defer' && (
            <>
              <TextField
                label={`Until, ${title}`}
                type="date"
                value={lines[key].until ?? ''}
                onChange={(e) => set(key, { until: e.target.value })}
              />
              <TextField
                label={`The risk, ${title}`}
                value={lines[key].risk ?? ''}
                onChange={(e) => set(key, { risk: e.target.value })}
              />
            </>
          )}
        </div>
      ))}
    </fieldset>
  );
}

function Difference({ quoted, actual }: { quoted: Bill; actual: Bill }) {
  const lines = billDifferences(quoted, actual);
  const by = billTotals(actual).totalMinor - billTotals(quoted).totalMinor;
  const money = (minor: number) => formatMoney(minor, actual.currency);
  if (lines.length === 0) return <p className="text-14 text-muted">It came to what was quoted.</p>;
  return (
    <>
      <p className="text-16 font-semibold">
        {money(Math.abs(by))} {by > 0 ? 'more' : 'less'} than quoted:
      </p>
      <ul className="text-14">
        {lines.map((d) => (
          <li key={d.what}>
            {d.what}: <span className="figure">{money(d.quotedMinor)}</span> quoted,{' '}
            <span className="figure">{money(d.actualMinor)}</span> in the end
          </li>
        ))}
      </ul>
    </>
  );
}

/** Estimate, the owner's answer, and what it came to. */
export function MoneyPanel({ open, back }: { open: OpenJob; back: () => void }) {
  const { estimate, answer, actual } = open.job.money;
  const [writing, setWriting] = useState<{ as: 'estimate' | 'actual'; start: Bill | null } | null>(null);
  const isSupervisor = open.person.role === 'supervisor';
  const currency = useShop()?.currency ?? 'USD';
  const parts = useJobPartsQuery(open.job.id, { skip: writing?.as !== 'actual' });
  const [fetchDraft, draft] = useLazyDraftEstimateQuery();
  const start = writing?.start;
  /** Asked for once: what is being typed does not change under the hand. */
  const begin = async (as: 'estimate' | 'actual') => {
    setWriting({ as, start: null });
    const { data } = await fetchDraft(open.job.id);
    const drafted = data ?? blankEstimate(open.job, currency);
    // What was written is kept; works that were added or left out since come to it or go.
    setWriting({ as, start: estimate ? writtenAnew(estimate.bill, drafted) : drafted });
  };
  const save = (as: 'estimate' | 'actual') => (bill: Bill) => {
    const refused = open.send({ kind: 'bill-written', as, bill });
    if (!refused) setWriting(null);
    return refused;
  };
  return (
    <>
      <h2 className="text-26">Estimate and bill</h2>
      {!estimate && (
        <p className="text-16">
          {actual
            ? 'It was billed without an estimate.'
            : isSupervisor
              ? 'No estimate is written yet.'
              : 'A supervisor writes the estimate.'}
        </p>
      )}
      {estimate && writing?.as !== 'estimate' && (
        <section aria-label="Estimate">
          <h3 className="text-18">
            Estimate{' '}
            <span className="text-13 font-normal text-muted">
              {estimate.by.name}, {formatTime(estimate.at)}
            </span>
          </h3>
          <BillView bill={estimate.bill} />
        </section>
      )}
      {answer && (
        <Note tone={answer.answer === 'do-now' ? 'good' : 'trouble'}>
          {answer.name}: {ownerAnswers[answer.answer].toLowerCase()}
          {answer.until && ` until ${answer.until}`}
          {answer.risk && `. Risk: ${answer.risk}`}
          {answer.message && `. “${answer.message}”`}. Recorded by {answer.by.name}, {formatTime(answer.at)}.
        </Note>
      )}
      {estimate && !answer && <Answer open={open} />}
      {actual && (
        <section aria-label="Bill">
          <h3 className="text-18">
            Bill{' '}
            <span className="text-13 font-normal text-muted">
              {actual.by.name}, {formatTime(actual.at)}
            </span>
          </h3>
          <BillView bill={actual.bill} />
          {estimate && <Difference quoted={estimate.bill} actual={actual.bill} />}
        </section>
      )}
      {writing !== null && !estimate && draft.error && (
        <Note tone="trouble">{problemText(draft.error)} Enter the lines yourself.</Note>
      )}
      {writing !== null && !start && <p role="status">Adding up hours and parts.</p>}
      {writing?.as === 'estimate' && start && (
        <BillForm
          start={start}
          priced={estimate !== null}
          button="Save the estimate"
          onSave={save('estimate')}
        />
      )}
      {writing?.as === 'actual' && start && (actual || !parts.isLoading) && (
        <BillForm
          start={actual?.bill ?? withUsedParts(start, parts.data ?? [])}
          priced={actual !== null || estimate !== null}
          button="Save the bill"
          onSave={save('actual')}
        />
      )}
      <div className="flex flex-wrap gap-3">
        {isSupervisor && writing === null && (
          <>
            <Button weight={estimate ? 'plain' : 'main'} onClick={() => void begin('estimate')}>
              {estimate ? 'Write the estimate anew' : 'Write the estimate'}
            </Button>
            <Button onClick={() => void begin('actual')}>
              {actual ? 'Write the bill anew' : 'Write the bill'}
            </Button>
          </>
        )}
        <Button onClick={back}>Back to the step at hand</Button>
      </div>
    </>
  );
}
