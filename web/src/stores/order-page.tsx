import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { z } from 'zod';
import type { Order } from '@lanternwright/contract/stores';
import { formatMoney } from '@lanternwright/core/cost';
import { openOf, paidFor } from '@lanternwright/core/record';
import { PageProblem } from '../form-problem.tsx';
import { LampForm } from '../lamp-form.tsx';
import { problemText } from '../api.ts';
import { ReasonForm } from '../reason-form.tsx';
import { formatDate } from '../shell/words.ts';
import { Button, buttonLook } from '../ui/button.tsx';
import { TextField } from '../ui/field.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useRequestForm } from '../use-request-form.ts';
import { orderStands } from './order-list.tsx';
import { wholeNumber } from './whole-number.ts';
import {
  useCancelOrderMutation,
  useDeliverOrderMutation,
  useDraftOrderMutation,
  useEndOrderLineMutation,
  useOrderQuery,
  usePromiseOrderMutation,
  useSendOrderMutation,
  useSupplierQuery,
} from './stores-api.ts';

/** What an order comes to, where every price is known and in one currency. */
function totalWords({ lines }: Order): string | null {
  const prices = lines.map(paidFor);
  const [currency, other] = new Set(prices.map((p) => p?.currency));
  if (currency === undefined || other !== undefined) return null;
  return formatMoney(
    lines.reduce((sum, l, i) => sum + l.quantity * prices[i]!.minor, 0),
    currency,
  );
}

const money = ({ minor, currency }: NonNullable<Order['lines'][number]['price']>) =>
  formatMoney(minor, currency);

function SendForm({ order, onDone }: { order: Order; onDone: () => void }) {
  const [send, { isLoading, error }] = useSendOrderMutation();
  const schema = z.object({ expected: z.string(), reference: z.string() });
  const { field, handleSubmit } = useRequestForm(schema, { expected: '', reference: '' }, error);
  const save = handleSubmit(async ({ expected, reference }) => {
    const { data } = await send({
      ...{ id: order.id, seenVersion: order.version, reference },
      expected: expected === '' ? null : expected,
    });
    if (data) onDone();
  });
  return (
    <LampForm {...{ error, isLoading }} button="It was sent" onSave={() => void save()} onCancel={onDone}>
      <div className="grid gap-3 sm:grid-cols-2">
        <TextField label="Promised for, optional" type="date" {...field('expected')} />
        <TextField label="Their number for it, optional" maxLength={80} {...field('reference')} />
      </div>
    </LampForm>
  );
}

/** What is sent to the supplier's own service, looked at once more: it is an order from then on. */
function OnlineForm({ order, onDone }: { order: Order; onDone: () => void }) {
  const [send, { isLoading, error }] = useSendOrderMutation();
  const save = async () => {
    const { id, version: seenVersion } = order;
    const { data } = await send({ id, seenVersion, expected: null, reference: '', online: true });
    if (data) onDone();
  };
  const pieces = order.lines.reduce((n, l) => n + l.quantity, 0);
  return (
    <LampForm {...{ error, isLoading }} button="Send it now" onSave={() => void save()} onCancel={onDone}>
      <p className="text-16">
        {order.supplier} gets an order of {pieces === 1 ? '1 piece' : `${pieces} pieces`}
        {totalWords(order) && `, ${totalWords(order)} as listed`}. They send what they have and bill it; it
        cannot be changed here any more.
      </p>
    </LampForm>
  );
}

function PromiseForm({ order, onDone }: { order: Order; onDone: () => void }) {
  const [promise, { isLoading, error }] = usePromiseOrderMutation();
  const schema = z.object({ expected: z.string().min(1, 'Enter the date') });
  const { field, handleSubmit } = useRequestForm(schema, { expected: '' }, error);
  const save = handleSubmit(async ({ expected }) => {
    const { data } = await promise({ id: order.id, seenVersion: order.version, expected });
    if (data) onDone();
  });
  return (
    <LampForm {...{ error, isLoading }} button="Record the day" onSave={() => void save()} onCancel={onDone}>
      <TextField label="Promised for" type="date" {...field('expected')} />
    </LampForm>
  );
}

const cameFields = {
  partId: z.string(),
  quantity: z.string(),
  damaged: z.string(),
  place: z.string(),
  batch: z.string(),
};
const deliverySchema = z
  .object({ note: z.string(), lines: z.array(z.object(cameFields)) })
  .transform(({ note, lines }, context) => {
    const many = (i: number, what: 'quantity' | 'damaged'): number => {
      const typed = lines[i]![what].trim();
      const n = typed === '' ? 0 : wholeNumber(typed);
      if (n === null)
        context.addIssue({ code: 'custom', message: 'A whole number', path: ['lines', i, what] });
      return n ?? 0;
    };
    const came = lines.map(({ partId, place, batch }, i) => ({
      ...{ partId, quantity: many(i, 'quantity'), damaged: many(i, 'damaged'), batch: batch.trim() },
      ...(place.trim() === '' ? {} : { place: place.trim() }),
    }));
    const some = came.filter((l) => l.quantity + l.damaged > 0);
    if (some.length === 0)
      context.addIssue({ code: 'custom', message: 'Enter what came', path: ['lines', 0, 'quantity'] });
    return { note: note.trim(), lines: some };
  });

/** What came of an order. Nothing is filled in before somebody says that all of it came. */
function DeliveryForm({ order, onDone }: { order: Order; onDone: () => void }) {
  const [deliver, { isLoading, error }] = useDeliverOrderMutation();
  const open = order.lines.filter((l) => openOf(l) > 0);
  const start = {
    note: '',
    lines: open.map(({ partId }) => ({ partId, quantity: '', damaged: '', place: '', batch: '' })),
  };
  const { field, handleSubmit, setValue } = useRequestForm(deliverySchema, start, error, {
    lines: 'lines.0.quantity',
  });
  const save = handleSubmit(async (came) => {
    const { data } = await deliver({ id: order.id, seenVersion: order.version, ...came });
    if (data) onDone();
  });
  const fillAll = () => open.forEach((line, i) => setValue(`lines.${i}.quantity`, String(openOf(line))));
  return (
    <LampForm
      {...{ error, isLoading }}
      button="Record what came"
      onSave={() => void save()}
      onCancel={onDone}
    >
      <div className="flex flex-wrap items-end gap-3">
        <TextField label="Delivery note number, optional" maxLength={80} {...field('note')} />
        <Button onClick={fillAll}>All of it came</Button>
      </div>
      {open.map((line, i) => (
        <fieldset key={line.partId} className="flex flex-col gap-2 border-t border-rule pt-3">
          <legend className="sr-only">{line.number}</legend>
          <p className="text-14">
            <span className="figure font-semibold">{line.number}</span> {line.title}, {openOf(line)} still to
            come
            {line.told && `, ${line.told.dispatched} dispatched`}
          </p>
          <div className="grid grid-cols-2 gap-3 sm:grid-cols-4">
            <TextField
              label={`${line.number}: how many came`}
              hint="Sound ones"
              className="figure"
              inputMode="numeric"
              {...field(`lines.${i}.quantity`)}
            />
            <TextField
              label={`${line.number}: damaged`}
              hint="They stay on order"
              className="figure"
              inputMode="numeric"
              {...field(`lines.${i}.damaged`)}
            />
            <TextField
              label={`${line.number}: put at${line.place ? ', optional' : ''}`}
              hint={line.place ? `Empty: with the rest of it, ${line.place}` : 'None on hand'}
              maxLength={40}
              {...field(`lines.${i}.place`)}
            />
            <TextField
              label={`${line.number}: batch, optional`}
              hint="As its maker printed it"
              maxLength={40}
              {...field(`lines.${i}.batch`)}
            />
          </div>
        </fieldset>
      ))}
    </LampForm>
  );
}

/** What one costs, and what it was listed at where they ask another price. */
function Price({ line: { price, told, quantity } }: { line: Order['lines'][number] }) {
  const asked = told?.price;
  const other = asked && (asked.minor !== price?.minor || asked.currency !== price.currency);
  return (
    <span className="figure text-13 sm:text-right">
      {other ? (
        <>
          {money(asked)}{' '}
          <span className="block text-rust">{price ? `not ${money(price)}` : 'not listed'}</span>
        </>
      ) : (
        price && (
          <>
            {money(price)}
            {quantity > 1 && (
              <span className="block text-muted">
                {money({ currency: price.currency, minor: price.minor * quantity })} together
              </span>
            )}
          </>
        )
      )}
    </span>
  );
}

function Lines({ order, onEnd }: { order: Order; onEnd: (partId: string) => void }) {
  return (
    <ul aria-label="Parts of this order" className="border-t border-rule">
      {order.lines.map((line) => (
        <li
          key={line.partId}
          className="grid items-center gap-x-4 gap-y-1 border-b border-rule py-2 text-14 sm:grid-cols-[40px_minmax(0,1fr)_110px_minmax(0,1fr)_auto]"
        >
          <span className="figure font-semibold">{line.quantity}</span>
          <Link to={`/stores/${line.partId}`} className="underline underline-offset-2">
            <span className="figure">{line.number}</span> {line.title}
          </Link>
          <Price line={line} />
          <span>
            {line.told && line.told.dispatched > 0 && `${line.told.dispatched} dispatched, `}
            {line.delivered > 0 && `${line.delivered} came`}
            {(line.damaged ?? 0) > 0 && `${line.delivered > 0 ? ', ' : ''}${line.damaged} damaged`}
            {(line.delivered > 0 || (line.damaged ?? 0) > 0) && openOf(line) > 0 && ', '}
            {order.status === 'sent' && openOf(line) > 0 && `${openOf(line)} to come`}
            {line.ended !== null && `; the rest does not come: ${line.ended}`}
          </span>
          {order.status === 'sent' && openOf(line) > 0 && (
            <Button
              weight="quiet"
              aria-label={`No more ${line.number} comes`}
              onClick={() => onEnd(line.partId)}
            >
              No more comes
            </Button>
          )}
        </li>
      ))}
    </ul>
  );
}

const changeSchema = z
  .object({ lines: z.array(z.object({ partId: z.string(), quantity: z.string() })) })
  .transform(({ lines }, context) => {
    const wanted = lines.map(({ partId, quantity }, i) => {
      const n = wholeNumber(quantity);
      if (n === null)
        context.addIssue({
          code: 'custom',
          message: 'A whole number. Enter 0 to leave this out',
          path: ['lines', i, 'quantity'],
        });
      return { partId, quantity: n ?? 0 };
    });
    const some = wanted.filter((l) => l.quantity > 0);
    if (some.length === 0)
      context.addIssue({ code: 'custom', message: 'There is no part on it', path: ['lines', 0, 'quantity'] });
    return some;
  });

/** How many of each: of an order that was not sent yet. */
function ChangeForm({ order, onDone }: { order: Order; onDone: () => void }) {
  const [draft, { isLoading, error }] = useDraftOrderMutation();
  const start = {
    lines: order.lines.map(({ partId, quantity }) => ({ partId, quantity: String(quantity) })),
  };
  const { field, handleSubmit } = useRequestForm(changeSchema, start, error);
  const save = handleSubmit(async (lines) => {
    const { id, version: seenVersion, supplier } = order;
    const { data } = await draft({ id, seenVersion, supplier, lines });
    if (data) onDone();
  });
  return (
    <LampForm
      {...{ error, isLoading }}
      button={`Save order ${order.number}`}
      onSave={() => void save()}
      onCancel={onDone}
    >
      <div className="grid gap-3 sm:grid-cols-3">
        {order.lines.map((line, i) => (
          <TextField
            key={line.partId}
            label={`${line.number}: how many`}
            className="figure"
            inputMode="numeric"
            {...field(`lines.${i}.quantity`)}
          />
        ))}
      </div>
    </LampForm>
  );
}

type Doing = 'send' | 'online' | 'change' | 'promise' | 'deliver' | 'cancel' | { end: string };

function OrderView({ order }: { order: Order }) {
  const [doing, setDoing] = useState<Doing | null>(null);
  const [endLine] = useEndOrderLineMutation();
  const [cancel] = useCancelOrderMutation();
  const done = () => setDoing(null);
  const at = { id: order.id, seenVersion: order.version };
  const { currentData: online } = useSupplierQuery();
  const takesOnline = online?.name === order.supplier;
  const nothingCame = order.lines.every((l) => l.delivered === 0);
  const told = async (answer: Promise<{ error?: unknown }>) => {
    const { error } = await answer;
    if (error) return problemText(error);
    done();
    return null;
  };
  return (
    <main>
      <div className="flex flex-wrap items-center justify-between gap-4 border-b border-rule px-5 py-4">
        <div>
          <h1 className="text-23">
            Order {order.number}, {order.supplier}
          </h1>
          <p className={`text-14 ${order.late ? 'font-semibold text-rust' : 'text-muted'}`}>
            {orderStands(order)}
            {order.reference && `, their number ${order.reference}`}
            {order.sentAt && `, sent ${formatDate(order.sentAt)}`}
          </p>
        </div>
        <div className="flex flex-wrap gap-2">
          {order.status === 'draft' && (
            <>
              {takesOnline && (
                <Button weight="main" onClick={() => setDoing('online')}>
                  Send it to {order.supplier}
                </Button>
              )}
              <Button weight={takesOnline ? 'plain' : 'main'} onClick={() => setDoing('send')}>
                Record that it was sent
              </Button>
              <Button onClick={() => setDoing('change')}>Change it</Button>
            </>
          )}
          {order.status === 'sent' && (
            <>
              <Button weight="main" onClick={() => setDoing('deliver')}>
                Something came
              </Button>
              <Button onClick={() => setDoing('promise')}>Another day</Button>
            </>
          )}
          <a href={`/api/stores/orders/${order.id}/order.pdf`} className={buttonLook('plain')}>
            PDF
          </a>
          <a href={`/api/stores/orders/${order.id}/order.csv`} className={buttonLook('plain')}>
            CSV
          </a>
          {(order.status === 'draft' || order.status === 'sent') && nothingCame && (
            <Button weight="grave" onClick={() => setDoing('cancel')}>
              Cancel order {order.number}
            </Button>
          )}
        </div>
      </div>
      <div className="mx-auto flex w-full max-w-[1080px] flex-col gap-5 p-5">
        {order.online && online?.trouble && <Note tone="trouble">{online.trouble}. It is asked again.</Note>}
        {doing === 'online' && <OnlineForm {...{ order, onDone: done }} />}
        {doing === 'send' && <SendForm {...{ order, onDone: done }} />}
        {doing === 'change' && <ChangeForm {...{ order, onDone: done }} />}
        {doing === 'promise' && <PromiseForm {...{ order, onDone: done }} />}
        {doing === 'deliver' && <DeliveryForm {...{ order, onDone: done }} />}
        {doing === 'cancel' && (
          <ReasonForm
            label={
              order.online
                ? `Why it is cancelled; ${order.supplier} has to be informed as well`
                : 'Why it is cancelled'
            }
            button={`Cancel order ${order.number}`}
            cancel="Leave it"
            onSave={(reason) => told(cancel({ ...at, reason }))}
            onCancel={done}
          />
        )}
        {doing !== null && typeof doing === 'object' && (
          <ReasonForm
            label="Why no more of it comes"
            button="No more of it comes"
            onSave={(reason) => told(endLine({ ...at, partId: doing.end, reason }))}
            onCancel={done}
          />
        )}
        <Lines order={order} onEnd={(partId) => setDoing({ end: partId })} />
        <p className="text-13 text-muted">
          {totalWords(order) && `Together ${totalWords(order)}. `}Last changed {formatDate(order.changedAt)}{' '}
          by {order.changedBy}.
        </p>
      </div>
    </main>
  );
}

/** An order of parts. */
export function OrderPage() {
  const { id } = useParams();
  const { currentData: order, error } = useOrderQuery(id!);
  if (error && !order) return <PageProblem error={error} />;
  return order ? <OrderView order={order} /> : null;
}
