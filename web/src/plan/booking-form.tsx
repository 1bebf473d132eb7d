import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import { useState } from 'react';
import type { Booked } from '@lanternwright/contract/plan';
import { problemFields } from '../api.ts';
import { FormProblem } from '../form-problem.tsx';
import { useShop } from '../people/people-api.ts';
import { dayAndTime, momentOf } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { SelectField, TextField } from '../ui/field.tsx';
import { useBookMutation, useCancelBookingMutation, useMoveBookingMutation } from './plan-api.ts';

/** What is booked: a unit for a job or none yet, or a booking that is moved. */
export interface Wanted {
  unit: { id: string; name: string };
  jobId: string | null;
  bayId?: string;
  /** Where it is moved from. */
  booked?: Booked;
}

interface Props {
  wanted: Wanted;
  people: readonly { id: string; name: string }[];
  onClose: () => void;
}

const chip = (on: boolean) =>
  `min-h-12 rounded-md border px-3 text-14 ${on ? 'border-lamp-edge bg-lamp font-semibold' : 'border-edge bg-panel'}`;

/** A booking is taken back with why; nothing of it goes from the record. */
function TakeBack({ booked, onDone }: { booked: Booked; onDone: () => void }) {
  const [reason, setReason] = useState('');
  const [asked, setAsked] = useState(false);
  const [cancel, { isLoading, error }] = useCancelBookingMutation();
  if (!asked)
    return (
      <Button weight="quiet" className="self-start" onClick={() => setAsked(true)}>
        It is not wanted any more
      </Button>
    );
  return (
    <form
      className="flex flex-col gap-3 border-t border-rule pt-3"
      onSubmit={(e) => {
        e.preventDefault();
        void cancel({ id: booked.id, seenVersion: booked.version, reason }).then((answer) => {
          if (!answer.error) onDone();
        });
      }}
    >
      <TextField
        label="Why"
        value={reason}
        maxLength={200}
        error={problemFields(error)['reason']}
        onChange={(e) => setReason(e.target.value)}
      />
      <FormProblem error={error} />
      <div>
        <Button type="submit" weight="grave" disabled={isLoading}>
          Take the booking of {booked.unit.name} back
        </Button>
      </div>
    </form>
  );
}

/** Which bay, who, from when to when. What is in the way is said in words, and what was typed stays. */
export function BookingForm({ wanted, people, onClose }: Props) {
  const { booked } = wanted;
  const bays = useShop()?.bays ?? [];
  const [bayId, setBay] = useState(wanted.bayId ?? booked?.bayId ?? '');
  const [who, setWho] = useState<readonly string[]>(booked?.people ?? []);
  const [from, setFrom] = useState(booked ? dayAndTime(booked.from) : { day: '', time: '' });
  const [until, setUntil] = useState(booked ? dayAndTime(booked.until) : { day: '', time: '' });
  const [missing, setMissing] = useState<Record<string, string>>({});
  const [book, booking] = useBookMutation();
  const [move, moving] = useMoveBookingMutation();
  const error = booking.error ?? moving.error;
  const fields = { ...problemFields(error), ...missing };
  const save = async () => {
    const wrong = {
      ...(bayId === '' ? { bayId: 'Choose a bay' } : {}),
      ...(from.day && from.time ? {} : { from: 'Say the day and the time' }),
      ...(until.day && until.time ? {} : { until: 'Say the day and the time' }),
    };
    setMissing(wrong);
    if (Object.keys(wrong).length > 0) return;
    const to = {
      tools: booked?.tools ?? [],
      bayId,
      people: [...who],
      from: momentOf(from.day, from.time),
      until: momentOf(until.day, until.time),
    };
    const answer = booked
      ? await move({ id: booked.id, seenVersion: booked.version, ...to })
      : await book({ unitId: wanted.unit.id, jobId: wanted.jobId, ...to });
    if (!answer.error) onClose();
  };
  const moment = (
    label: string,
    field: 'from' | 'until',
    value: { day: string; time: string },
    set: (value: { day: string; time: string }) => void,
  ) => (
    <div className="grid grid-cols-2 items-start gap-2">
      <TextField
        label={`${label}, day`}
        type="date"
        value={value.day}
        error={fields[field]}
        onChange={(e) => set({ ...value, day: e.target.value })}
      />
      <TextField
        label={`${label}, time`}
        type="time"
        value={value.time}
        onChange={(e) => set({ ...value, time: e.target.value })}
      />
    </div>
  );
  return (
    <Dialog open onClose={onClose} className="relative z-20">
      <div className="fixed inset-0 bg-ink/40" aria-hidden />
      <div className="fixed inset-0 overflow-y-auto p-4">
        <DialogPanel className="mx-auto flex max-w-[560px] flex-col gap-4 rounded-lg border border-edge bg-paper p-5">
          <DialogTitle className="text-18">
            {booked ? `Move ${wanted.unit.name}` : `Book a bay for ${wanted.unit.name}`}
          </DialogTitle>
          <form
            className="flex flex-col gap-4"
            onSubmit={(e) => {
              e.preventDefault();
              void save();
            }}
          >
            <SelectField
              label="Bay"
              value={bayId}
              error={fields['bayId'] ?? fields['unitId']}
              onChange={(e) => setBay(e.target.value)}
            >
              <option value="">choose</option>
              {bays.map((b) => (
                <option key={b.id} value={b.id}>
                  {b.name}
                </option>
              ))}
            </SelectField>
            {moment('From', 'from', from, (value) => {
              setFrom(value);
              // Most leave on the day they came.
              if (until.day === '') setUntil({ ...until, day: value.day });
            })}
            {moment('Until', 'until', until, setUntil)}
            <fieldset className="flex flex-col gap-1">
              <legend className="caption">Who works on it, optional</legend>
              <div className="flex flex-wrap gap-2">
                {people.map((p) => (
                  <button
                    key={p.id}
                    type="button"
                    aria-pressed={who.includes(p.id)}
                    onClick={() =>
                      setWho(who.includes(p.id) ? who.filter((x) => x !== p.id) : [...who, p.id])
                    }
                    className={chip(who.includes(p.id))}
                  >
                    {p.name}
                  </button>
                ))}
              </div>
              {fields['people'] && <p className="text-13 text-rust">{fields['people']}</p>}
            </fieldset>
            <FormProblem error={error} />
            <div className="flex flex-wrap gap-2">
              <Button type="submit" weight="main" disabled={booking.isLoading || moving.isLoading}>
                {booked ? 'Move it' : `Book ${wanted.unit.name}`}
              </Button>
              <Button onClick={onClose}>Not now</Button>
            </div>
          </form>
          {booked && <TakeBack booked={booked} onDone={onClose} />}
        </DialogPanel>
      </div>
    </Dialog>
  );
}
