import { useState } from 'react';
import { Button } from './button.tsx';
import { StudWheel } from './stud-wheel.tsx';

interface Pass {
  torqueNm: number;
  order: readonly number[];
}

interface Props {
  studs: number;
  passes: readonly Pass[];
  /** Words for a torque in the unit of the device. */
  say: (nm: number) => string;
  size?: number;
  onFinished?: () => void;
}

/** The wheel with its studs lit one after another, stage by stage. */
export function StudWalk({ studs, passes, say, size, onFinished }: Props) {
  const [at, setAt] = useState({ pass: 0, done: 0 });
  const passNumber = Math.min(at.pass, passes.length - 1);
  const pass = passes[passNumber]!;
  const done = Math.min(at.done, studs);
  const finished = done >= studs && passNumber === passes.length - 1;
  const forward = () => {
    if (done >= studs) return setAt({ pass: passNumber + 1, done: 0 });
    setAt({ pass: passNumber, done: done + 1 });
    if (done + 1 >= studs && passNumber === passes.length - 1) onFinished?.();
  };
  return (
    <div className="flex flex-wrap items-start gap-6">
      <StudWheel studs={studs} order={pass.order} done={done} size={size} />
      <div className="flex flex-col gap-3">
        <h3 className="text-18">
          Pass {passNumber + 1} of {passes.length}, {say(pass.torqueNm)}
        </h3>
        <p className="text-14">
          {finished
            ? 'Every stud is done, twice at full torque at the end.'
            : done < studs
              ? `Next is ${pass.order[done]}.`
              : 'This pass is done.'}
        </p>
        <ol className="grid max-h-40 grid-flow-col grid-rows-5 gap-x-5 overflow-auto">
          {pass.order.map((stud, i) => (
            <li
              key={stud}
              className={`figure text-14 ${i === done ? 'font-semibold text-lamp-ink' : i < done ? 'text-pine' : 'text-muted'}`}
            >
              {stud}
            </li>
          ))}
        </ol>
        <div className="flex flex-wrap gap-2 print:hidden">
          <Button weight="main" onClick={forward} disabled={finished}>
            {done < studs ? 'Stud done' : 'Next pass'}
          </Button>
          <Button onClick={() => setAt({ pass: 0, done: 0 })}>From the start</Button>
        </div>
      </div>
    </div>
  );
}
