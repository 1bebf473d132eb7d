import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import type { UnitDetail } from '@lanternwright/contract/fleet';
import { axleAt, axleNumber } from '@lanternwright/core/axle-plan';
import { stackOfSheet } from '@lanternwright/core/procedure';
import { works as workTitles, worksOf, type Work } from '@lanternwright/core/stack';
import { problemFields, problemText } from '../api.ts';
import { useUnitQuery } from '../fleet/fleet-api.ts';
import { worksAsked } from '../jobs/job-link.ts';
import { Button } from '../ui/button.tsx';
import { chipLook } from '../ui/chip-look.ts';
import { TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useAskProposalMutation } from './plan-api.ts';

type Chosen = Readonly<Record<string, readonly Work[]>>;

/** Works that a wheel end can have, as it is built. */
function ableAt(unit: UnitDetail, position: string): Work[] {
  const axle = axleAt(unit.axles, position);
  const stack = axle && stackOfSheet(axle.sheet, axle);
  return stack ? worksOf(stack) : [];
}

/** What the address asks for, as far as these wheel ends have it. */
function chosenFrom(unit: UnitDetail, params: URLSearchParams): Chosen {
  const asked = worksAsked(params)?.works ?? [];
  return Object.fromEntries(
    unit.wheelEnds.flatMap(({ position }) => {
      const own = ableAt(unit, position).filter((work) =>
        asked.some((a) => a.position === position && a.work === work),
      );
      return own.length > 0 ? [[position, own]] : [];
    }),
  );
}

/** Which wheel ends, and what is to be done on each; both sides of an axle alike. */
function WorkFields({
  unit,
  chosen,
  onChange,
}: {
  unit: UnitDetail;
  chosen: Chosen;
  onChange: (chosen: Chosen) => void;
}) {
  const axles = [...new Set(Object.keys(chosen).map(axleNumber))].sort((a, b) => a - b);
  const togglePosition = (position: string) => {
    const { [position]: was, ...rest } = chosen;
    const beside = Object.entries(rest).find(([p]) => axleNumber(p) === axleNumber(position))?.[1] ?? [];
    const able = ableAt(unit, position);
    onChange(was ? rest : { ...rest, [position]: beside.filter((w) => able.includes(w)) });
  };
  const toggleWork = (ends: readonly string[], work: Work) => {
    const all = ends.every((p) => chosen[p]!.includes(work));
    const next = ends.map((p): [string, Work[]] => {
      const others = chosen[p]!.filter((w) => w !== work);
      return [p, all || !ableAt(unit, p).includes(work) ? others : [...others, work]];
    });
    onChange({ ...chosen, ...Object.fromEntries(next) });
  };
  return (
    <>
      <div role="group" aria-label="Wheel ends" className="flex flex-wrap gap-2">
        {unit.wheelEnds.map(({ position }) => (
          <button
            key={position}
            type="button"
            aria-pressed={position in chosen}
            disabled={ableAt(unit, position).length === 0}
            className={`figure min-w-14 disabled:opacity-40 ${chipLook(position in chosen)}`}
            onClick={() => togglePosition(position)}
          >
            {position}
          </button>
        ))}
      </div>
      {axles.map((axle) => {
        const ends = Object.keys(chosen).filter((p) => axleNumber(p) === axle);
        const able = [...new Set(ends.flatMap((p) => ableAt(unit, p)))];
        return (
          <fieldset key={axle}>
            <legend className="caption pb-1">Work on {ends.sort().join(' and ')}</legend>
            <div className="flex flex-wrap gap-2">
              {able.map((work) => {
                const on = ends.every((p) => chosen[p]!.includes(work) || !ableAt(unit, p).includes(work));
                return (
                  <button
                    key={work}
                    type="button"
                    aria-pressed={on}
                    className={chipLook(on)}
                    onClick={() => toggleWork(ends, work)}
                  >
                    {workTitles[work]}
                  </button>
                );
              })}
            </div>
          </fieldset>
        );
      })}
    </>
  );
}

function PromiseForm({ unit, params }: { unit: UnitDetail; params: URLSearchParams }) {
  const go = useNavigate();
  const [chosen, setChosen] = useState(() => chosenFrom(unit, params));
  const [by, setBy] = useState('');
  const [ask, { error, isLoading }] = useAskProposalMutation();
  const works = Object.entries(chosen).flatMap(([position, own]) => own.map((work) => ({ position, work })));
  const undecided = Object.keys(chosen).find((p) => chosen[p]!.length === 0);
  const find = async () => {
    const answer = await ask({
      kind: 'promise',
      promise: { unitId: unit.id, works, by: by === '' ? null : by },
    });
    if (!answer.error) await go(`/plan/proposals/${answer.data.id}`);
  };
  return (
    <form
      className="flex max-w-[860px] flex-col gap-5 p-5"
      onSubmit={(e) => {
        e.preventDefault();
        void find();
      }}
    >
      <p className="max-w-[70ch] text-14 text-muted">
        Finds the earliest time with a bay, a technician and the parts, and says what decides it. If that is
        later than the day you want, it looks for other bookings that could move.
      </p>
      <WorkFields unit={unit} chosen={chosen} onChange={setChosen} />
      <div className="max-w-[240px]">
        <TextField
          label="Finished by (optional)"
          type="date"
          value={by}
          error={problemFields(error)['promise.by']}
          onChange={(e) => setBy(e.target.value)}
        />
      </div>
      {error && <Note tone="trouble">{problemText(error)}</Note>}
      <div>
        <Button
          type="submit"
          weight="main"
          disabled={works.length === 0 || undecided !== undefined || isLoading}
        >
          {works.length === 0
            ? 'Choose wheel ends and work'
            : undecided
              ? `Choose the work on ${undecided}`
              : 'Find a time'}
        </Button>
      </div>
    </form>
  );
}

/** For which day some work on a unit can be promised. */
export function PromisePage() {
  const [params] = useSearchParams();
  const { data: unit, error } = useUnitQuery(params.get('unit') ?? '');
  return (
    <main>
      <div className="flex flex-wrap items-baseline gap-x-4 border-b border-rule px-5 py-4">
        <h1 className="text-23">Find a time{unit && ` for ${unit.name}`}</h1>
        {unit && (
          <Link to={`/fleet/${unit.id}`} className="text-14 underline underline-offset-2">
            {unit.owner.name}
          </Link>
        )}
      </div>
      {error && (
        <div className="p-5">
          <Note tone="trouble">{problemText(error)}</Note>
        </div>
      )}
      {unit && <PromiseForm key={unit.id} unit={unit} params={params} />}
    </main>
  );
}
