import { useCallback, useEffect, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { may } from '@lanternwright/core/access';
import type { Person } from '@lanternwright/contract/people';
import { usePerson } from '../people/people-api.ts';
import { useAppDispatch, useAppSelector } from '../store.ts';
import { Button } from '../ui/button.tsx';
import { maySend, sendOnFor, sendWaiting, type Hindrance, type Recorder, type Waiting } from './outbox.ts';
import { sendPhotos } from './photo-queue.ts';

const RETRY_MS = 3_000;
const bar =
  'flex flex-wrap items-center justify-between gap-3 border-b border-lamp-edge bg-lamp px-5 py-2 text-14';
const say = (count: number) => `${count} ${count === 1 ? 'record waits' : 'records wait'} on this device`;

const why: Record<Hindrance, string> = {
  'no-network': 'The server cannot be reached.',
  'not-recording': 'Nothing can be recorded just now: the shop’s database takes nothing.',
  trouble: 'The server is in trouble and could not take all of it.',
  'another-person': 'Another person is signed in.',
};

/** What others recorded here and could not send: it goes when they are back, or a supervisor sends it on. */
function Others({ person, others }: { person: Person; others: ReadonlyMap<string, [Recorder, number]> }) {
  const dispatch = useAppDispatch();
  const [asked, setAsked] = useState<string | null>(null);
  const sendOn = (by: Recorder) => {
    setAsked(null);
    void dispatch(sendOnFor(by.id, { id: person.id, name: person.name }));
  };
  return [...others.values()].map(([by, count]) => (
    <div key={by.id} role="status" className={bar}>
      <span>
        {say(count)} that {by.name} made. They are sent when {by.name} signs in here.
      </span>
      {may(person.role, 'send-for-others') && asked !== by.id && (
        <Button onClick={() => setAsked(by.id)}>Send them now</Button>
      )}
      {asked === by.id && (
        <span className="flex flex-wrap items-center gap-3">
          They stay records of {by.name}, and say that {person.name} sent them. What {by.name} has to sign in
          person waits.
          <Button weight="main" onClick={() => sendOn(by)}>
            Send them for {by.name}
          </Button>
          <Button onClick={() => setAsked(null)}>Leave them here</Button>
        </span>
      )}
    </div>
  ));
}

/** Says what waits to be sent, of whom, and keeps trying for whoever is signed in. */
export function OutboxBar() {
  const dispatch = useAppDispatch();
  const person = usePerson();
  const { waiting, hindrance, cannotHold } = useAppSelector((s) => s.outbox);
  const { pathname } = useLocation();
  const notTaken = useAppSelector((s) => s.notTaken.waiting.length);
  const photos = useAppSelector((s) => s.photoQueue.waiting);
  const isOwn = (w: Pick<Waiting, 'by' | 'sentBy'>) => maySend(w, person?.id);
  const count = waiting.filter(isOwn).length + photos.filter(isOwn).length;
  const others = new Map<string, [Recorder, number]>();
  for (const w of waiting) if (!isOwn(w)) others.set(w.by.id, [w.by, (others.get(w.by.id)?.[1] ?? 0) + 1]);
  const id = person?.id;
  const sendAll = useCallback(() => {
    if (id === undefined) return;
    void dispatch(sendWaiting(id));
    void dispatch(sendPhotos(id));
  }, [dispatch, id]);
  useEffect(() => {
    if (count === 0) return;
    const timer = setInterval(sendAll, RETRY_MS);
    window.addEventListener('online', sendAll);
    return () => {
      clearInterval(timer);
      window.removeEventListener('online', sendAll);
    };
  }, [count, sendAll]);
  return (
    <>
      {person && <Others {...{ person, others }} />}
      {cannotHold !== null && (
        <div role="status" className={bar}>
          <span>
            This browser cannot hold records ({cannotHold}). What you record here is lost where the network is
            gone: use another one.
          </span>
        </div>
      )}
      {notTaken > 0 && pathname !== '/waiting' && (
        <div role="status" className="border-b border-rust bg-rust-wash px-5 py-2 text-14">
          {notTaken === 1
            ? 'A record was not taken and waits'
            : `${notTaken} records were not taken and wait`}{' '}
          to be settled.{' '}
          <Link
            to="/waiting"
            className="inline-flex min-h-10 items-center font-semibold underline underline-offset-4"
          >
            Settle it
          </Link>
        </div>
      )}
      {hindrance && count > 0 && (
        <div role="status" className={bar}>
          <span>
            {why[hindrance]} {say(count)} and will be sent by itself.
          </span>
          <span className="flex flex-wrap items-center gap-4">
            <Link to="/waiting" className="flex min-h-12 items-center underline underline-offset-4">
              Look at it
            </Link>
            <Button onClick={sendAll}>Try now</Button>
          </span>
        </div>
      )}
    </>
  );
}
