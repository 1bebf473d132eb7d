import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import { Button } from '../ui/button.tsx';

const keys = [
  ['/', 'Find a unit, a job, a part or a calculation'],
  ['g then o', 'Go to the floor'],
  ['g then f', 'Go to the fleet'],
  ['g then j', 'Go to the jobs'],
  ['g then p', 'Go to the plan'],
  ['g then r', 'Go to the reckoner'],
  ['u', 'Change between thou and mm'],
  ['n', 'Night shift or day'],
  ['Alt b', 'In a job: Bay view, one step and a keypad'],
  ['[ and ]', 'In a job: the wheel end before or after'],
  ['Enter', 'Record the step or the cycle at hand'],
  ['?', 'This sheet'],
  ['Esc', 'Close what is open'],
] as const;

export function KeysSheet({ onClose }: { onClose: () => void }) {
  return (
    <Dialog open onClose={onClose} className="relative z-30">
      <div className="fixed inset-0 bg-band/60" aria-hidden />
      <div className="fixed inset-0 flex items-center justify-center p-4">
        <DialogPanel className="w-full max-w-[460px] rounded-lg border border-edge bg-panel p-5">
          <DialogTitle className="pb-3 text-18">Keys</DialogTitle>
          <dl className="grid grid-cols-[auto_1fr] gap-x-5 gap-y-2 pb-4">
            {keys.map(([key, what]) => (
              <div key={key} className="contents">
                <dt className="figure text-14">{key}</dt>
                <dd>{what}</dd>
              </div>
            ))}
          </dl>
          <Button onClick={onClose}>Close</Button>
        </DialogPanel>
      </div>
    </Dialog>
  );
}
