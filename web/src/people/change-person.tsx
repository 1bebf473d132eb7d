import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import { useState } from 'react';
import { problemText } from '../api.ts';
import { Button } from '../ui/button.tsx';
import { PinPad, SHORTEST_PIN } from '../ui/pin-pad.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useChangePersonMutation, usePeopleWithPinQuery, usePerson } from './people-api.ts';

/** A quick change of person at a tablet that several use: who, then their PIN. */
export function ChangePerson({ onClose }: { onClose: () => void }) {
  const me = usePerson();
  const { data, error: listError } = usePeopleWithPinQuery(undefined, { refetchOnMountOrArgChange: true });
  const [who, setWho] = useState<string | null>(null);
  const [pin, setPin] = useState('');
  const [change, { isLoading, error }] = useChangePersonMutation();
  const others = (data ?? []).filter((p) => p.id !== me?.id);
  const name = others.find((p) => p.id === who)?.name;
  const go = async () => {
    if (!who) return;
    const { error: refused } = await change({ personId: who, pin });
    setPin('');
    if (!refused) onClose();
  };
  return (
    <Dialog open onClose={onClose} className="relative z-30">
      <div className="fixed inset-0 bg-band/60" aria-hidden />
      <div className="fixed inset-0 flex items-center justify-center overflow-y-auto p-4">
        <DialogPanel className="flex w-full max-w-[420px] flex-col gap-4 rounded-lg border border-edge bg-panel p-5">
          <DialogTitle className="text-18">{name ? `PIN of ${name}` : 'Who takes over here'}</DialogTitle>
          {listError && <Note tone="trouble">{problemText(listError)}</Note>}
          {who === null ? (
            <ul className="flex flex-col gap-2">
              {others.map((p) => (
                <li key={p.id}>
                  <Button className="w-full" onClick={() => setWho(p.id)}>
                    {p.name}
                  </Button>
                </li>
              ))}
              {data && others.length === 0 && (
                <li className="text-16 text-muted">
                  No other person has a PIN. People set their own under their name, top right.
                </li>
              )}
            </ul>
          ) : (
            <form
              className="flex flex-col gap-4"
              onSubmit={(e) => {
                e.preventDefault();
                void go();
              }}
            >
              <PinPad pin={pin} onPin={setPin} />
              {error && <Note tone="trouble">{problemText(error)}</Note>}
              <Button type="submit" weight="main" disabled={isLoading || pin.length < SHORTEST_PIN}>
                Change to {name}
              </Button>
            </form>
          )}
          <Button onClick={onClose}>Leave it</Button>
        </DialogPanel>
      </div>
    </Dialog>
  );
}
