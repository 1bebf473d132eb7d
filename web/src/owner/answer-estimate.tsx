import { useState } from 'react';
import { formatMoney, lineMinor, type Bill, type WorkAt } from '@lanternwright/core/cost';
import { ownerAnswers, wheelEndAt, type Command, type OwnerAnswer } from '@lanternwright/core/traveller';
import { Button } from '../ui/button.tsx';
import { AreaField, TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import type { OpenJob } from '../jobs/use-job.ts';
import { Approved, linesOf, type AskedLine } from '../estimates/approved.tsx';
import { Found } from './found.tsx';

interface Said {
  answer: OwnerAnswer;
  until: string;
  risk: string;
}

const later = ({ until, risk }: Said) => ({
  ...(until ? { until } : {}),
  ...(risk.trim() ? { risk: risk.trim() } : {}),
});

/** What is sent: the same answer to everything is one answer; otherwise what is done, with what is left out named. */
function commandFrom(
  lines: readonly AskedLine[],
  said: Readonly<Record<string, Said>>,
  message: string,
  open: OpenJob,
): Command {
  const of = (line: AskedLine) => said[line.key]!;
  const first = of(lines[0]!);
  const base = {
    kind: 'owner-answered' as const,
    name: open.person.name,
    estimate: open.job.money.estimate!.eventId,
    ...(message.trim() ? { message: message.trim() } : {}),
  };
  if (lines.every((l) => of(l).answer === first.answer))
    return { ...base, answer: first.answer, ...(first.answer === 'defer' ? later(first) : {}) };
  const apart = lines.flatMap((line) => {
    const { answer, ...rest } = of(line);
    if (answer === 'do-now' || !line.at) return [];
    return [{ ...line.at, answer, ...(answer === 'defer' ? later({ answer, ...rest }) : {}) }];
  });
  return { ...base, answer: 'do-now', works: apart };
}

/** What is charged for a work: the lines that are for it, with those it shares with others of its wheel end. */
function Charged({ bill, at }: { bill: Bill; at: WorkAt }) {
  const own = bill.lines.filter((l) => l.at?.position === at.position && l.at.works.includes(at.work));
  return (
    <ul className="text-14">
      {own.map((l, i) => (
        <li key={i} className="flex justify-between gap-3">
          <span>
            {l.group === 'labour' ? `Labour, ${l.quantity} h` : l.what}
            {l.at!.works.length > 1 && <span className="text-muted">, shared</span>}
          </span>
          <span className="figure whitespace-nowrap">{formatMoney(lineMinor(l), bill.currency)}</span>
        </li>
      ))}
    </ul>
  );
}

function LineChoice({
  line,
  bill,
  said,
  onSay,
}: {
  line: AskedLine;
  bill: Bill;
  said: Said | undefined;
  onSay: (said: Said) => void;
}) {
  return (
    <fieldset className="flex flex-col gap-2 border-b border-rule pb-4">
      <legend className="pb-2 text-16 font-semibold">{line.title}</legend>
      {line.at && <Charged bill={bill} at={line.at} />}
      <div className="grid grid-cols-3 gap-2">
        {(Object.keys(ownerAnswers) as OwnerAnswer[]).map((answer) => (
          <label
            key={answer}
            className={`flex min-h-14 cursor-pointer items-center justify-center rounded-lg border px-2 text-center text-14 font-semibold has-focus-visible:outline-2 ${said?.answer === answer ? 'border-lamp-edge bg-lamp' : 'border-edge bg-panel'}`}
          >
            <input
              type="radio"
              name={line.key}
              className="sr-only"
              checked={said?.answer === answer}
              onChange={() => onSay({ until: '', risk: '', ...said, answer })}
            />
            {ownerAnswers[answer]}
          </label>
        ))}
      </div>
      {said?.answer === 'defer' && (
        <div className="grid gap-2 sm:grid-cols-2">
          <TextField
            label={`Until, ${line.title}`}
            type="date"
            value={said.until}
            onChange={(e) => onSay({ ...said, until: e.target.value })}
          />
          <TextField
            label={`What you take on until then, ${line.title}`}
            value={said.risk}
            placeholder="The seal may let go on the road"
            onChange={(e) => onSay({ ...said, risk: e.target.value })}
          />
        </div>
      )}
    </fieldset>
  );
}

/** The owner's own answer to an estimate, line by line; nothing is chosen beforehand, nothing more comes off till then. */
export function AnswerEstimate({ open }: { open: OpenJob }) {
  const { bill } = open.job.money.estimate!;
  const lines = linesOf(open.job);
  const positions = [...new Set(lines.map((l) => l.at?.position ?? ''))];
  const [said, setSaid] = useState<Readonly<Record<string, Said>>>({});
  const [message, setMessage] = useState('');
  const [error, setError] = useState<string | null>(null);
  const missing = lines.filter((l) => !said[l.key]);
  const all = (answer: OwnerAnswer) =>
    setSaid(Object.fromEntries(lines.map((l) => [l.key, { until: '', risk: '', ...said[l.key], answer }])));
  return (
    <form
      aria-label="Your answer"
      className="flex flex-col gap-4"
      onSubmit={(e) => {
        e.preventDefault();
        setError(
          missing.length > 0
            ? `Not answered yet: ${missing.map((l) => l.title).join(', ')}`
            : open.send(commandFrom(lines, said, message, open)),
        );
      }}
    >
      <div className="flex flex-wrap items-center justify-between gap-3">
        <h2 className="text-18">Your answer</h2>
        {lines.length > 1 && <Button onClick={() => all('do-now')}>Approve everything</Button>}
      </div>
      {positions.map((position) => {
        const w = wheelEndAt(open.job, position);
        return (
          <section key={position} aria-label={position || 'The job'} className="flex flex-col gap-3">
            {w && <h3 className="text-16 font-semibold">Wheel end {position}</h3>}
            {w && <Found w={w} />}
            {lines
              .filter((l) => (l.at?.position ?? '') === position)
              .map((line) => (
                <LineChoice
                  key={line.key}
                  {...{ line, bill, said: said[line.key] }}
                  onSay={(s) => setSaid({ ...said, [line.key]: s })}
                />
              ))}
          </section>
        );
      })}
      <AreaField
        label="Message to the shop, if you want to add one"
        rows={2}
        maxLength={500}
        value={message}
        onChange={(e) => setMessage(e.target.value)}
      />
      <Approved {...{ lines, bill }} answers={said} isOwner />
      {error && <Note tone="trouble">{error}</Note>}
      <Button type="submit" weight="main" className="w-full sm:w-auto sm:self-start">
        Give this answer
      </Button>
    </form>
  );
}
