import { useState } from 'react';
import {
  webhookEvents,
  type Delivery,
  type Webhook,
  type WebhookEvent,
} from '@lanternwright/contract/programs';
import { problemFields, problemText } from '../api.ts';
import { FormProblem } from '../form-problem.tsx';
import { formatDate, formatTime } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { CheckList } from './check-list.tsx';
import {
  useDeliveriesQuery,
  useEndWebhookMutation,
  useMakeWebhookMutation,
  useSendAgainMutation,
  useTryWebhookMutation,
  useWebhooksQuery,
} from './programs-api.ts';

function MakeWebhook() {
  const [make, { data, error, isLoading, reset }] = useMakeWebhookMutation();
  const [name, setName] = useState('');
  const [url, setUrl] = useState('');
  const [events, setEvents] = useState<WebhookEvent[]>([]);
  const fields = problemFields(error);
  const save = async () => {
    const made = await make({ name, url, events });
    if (!made.data) return;
    setName('');
    setUrl('');
    setEvents([]);
  };
  return (
    <form
      className="flex flex-col gap-4"
      onSubmit={(e) => {
        e.preventDefault();
        void save();
      }}
      onChange={() => data && reset()}
    >
      <h3 className="text-16 font-semibold">New webhook</h3>
      <div className="grid gap-4 md:grid-cols-[1fr_2fr]">
        <TextField
          label="Receiver"
          required
          value={name}
          error={fields['name']}
          onChange={(e) => setName(e.target.value)}
        />
        <TextField
          label="Address"
          type="url"
          required
          placeholder="https://"
          value={url}
          error={fields['url']}
          onChange={(e) => setUrl(e.target.value)}
        />
      </div>
      <CheckList
        legend="Events"
        choices={webhookEvents}
        chosen={events}
        error={fields['events']}
        onChange={setEvents}
      />
      <FormProblem error={error} />
      {data && (
        <Note tone="good">
          <p>Every message is signed with this secret. It is shown once: copy it now.</p>
          <p className="figure pt-1 text-13 break-all select-all">{data.secret}</p>
        </Note>
      )}
      <div>
        <Button type="submit" disabled={isLoading || events.length === 0}>
          Add this webhook
        </Button>
      </div>
    </form>
  );
}

function resultOf({ deliveredAt, givenUpAt, lastTryAt, tries, problem }: Delivery): string {
  if (deliveredAt) return `Delivered ${formatTime(deliveredAt)}`;
  if (givenUpAt) return `Given up after ${tries} tries: ${problem ?? ''}`;
  return lastTryAt
    ? `Tried ${tries === 1 ? 'once' : `${tries} times`}: ${problem ?? ''}`
    : 'Waiting to be sent';
}

function Deliveries({ webhook }: { webhook: Webhook }) {
  const { data } = useDeliveriesQuery(webhook.id, { pollingInterval: 5_000 });
  const [again, { error, isLoading }] = useSendAgainMutation();
  if (!data) return null;
  if (data.length === 0) return <p className="py-2 text-14 text-muted">No messages yet.</p>;
  return (
    <>
      {error && <Note tone="trouble">{problemText(error)}</Note>}
      <ul className="max-h-80 overflow-auto">
        {data.map((d) => (
          <li
            key={d.id}
            className="flex min-h-11 flex-wrap items-center gap-x-4 border-t border-rule py-1 text-13"
          >
            <span className="figure text-muted">{formatTime(d.at)}</span>
            <span className="flex-1 basis-48">
              {d.event === 'try' ? 'Test message' : webhookEvents[d.event]}
            </span>
            <span className={d.givenUpAt ? 'text-rust' : ''}>{resultOf(d)}</span>
            {d.givenUpAt && !webhook.endedAt && (
              <Button weight="quiet" disabled={isLoading} onClick={() => void again(d.id)}>
                Send again
              </Button>
            )}
          </li>
        ))}
      </ul>
    </>
  );
}

function WebhookLine({ webhook }: { webhook: Webhook }) {
  const [shown, setShown] = useState(false);
  const [tryOut, trying] = useTryWebhookMutation();
  const [end, ending] = useEndWebhookMutation();
  const error = trying.error ?? ending.error;
  const { name, url, events, endedAt, waiting, givenUp, madeAt, madeBy, lastDeliveredAt } = webhook;
  return (
    <li className="flex flex-col border-b border-rule py-2 text-14">
      <div className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1">
        <div className="min-w-0 flex-1 basis-80">
          <p>
            <b className={endedAt ? 'text-muted line-through' : ''}>{name}</b>{' '}
            <span className="figure text-13 break-all text-muted">{url}</span>
          </p>
          <p>{events.map((e) => webhookEvents[e]).join(' · ')}</p>
          <p className="text-13 text-muted">
            {endedAt ? `Ended ${formatDate(endedAt)}` : `Added ${formatDate(madeAt)} by ${madeBy}`} ·{' '}
            {lastDeliveredAt ? `Last delivered ${formatTime(lastDeliveredAt)}` : 'Nothing delivered yet'}
            {waiting > 0 && ` · ${waiting} waiting`}
            {givenUp > 0 && <span className="text-rust"> · {givenUp} given up</span>}
          </p>
        </div>
        <div className="flex flex-wrap gap-3">
          <Button weight="quiet" aria-expanded={shown} onClick={() => setShown(!shown)}>
            {shown ? 'Hide the messages' : 'Show the messages'}
          </Button>
          {!endedAt && (
            <>
              <Button
                disabled={trying.isLoading}
                onClick={() => void tryOut(webhook.id).then(() => setShown(true))}
              >
                Send a test message
              </Button>
              <Button weight="grave" disabled={ending.isLoading} onClick={() => void end(webhook.id)}>
                End it
              </Button>
            </>
          )}
        </div>
      </div>
      {error && <p className="text-13 text-rust">{problemText(error)}</p>}
      {shown && <Deliveries webhook={webhook} />}
    </li>
  );
}

/** Addresses that are notified of what happens here. */
export function WebhooksSection() {
  const { data, error } = useWebhooksQuery();
  return (
    <section aria-label="Webhooks" className="flex flex-col gap-4 border-t border-rule pt-5">
      <h2 className="text-18 font-semibold">Webhooks</h2>
      <p className="max-w-[70ch] text-14 text-muted">
        Lanternwright sends a signed message to an address of yours when something happens. If the address
        does not answer, it tries again for about 19 hours.
      </p>
      {error && <Note tone="trouble">{problemText(error)}</Note>}
      {data && data.length > 0 && (
        <ul>
          {data.map((webhook) => (
            <WebhookLine key={webhook.id} webhook={webhook} />
          ))}
        </ul>
      )}
      <MakeWebhook />
    </section>
  );
}
