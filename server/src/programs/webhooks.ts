import { randomBytes, randomUUID } from 'node:crypto';
import { QueryTypes } from 'sequelize';
import { Webhook as Signer } from 'standardwebhooks';
import {
  DELIVERIES_SHOWN,
  type Delivery,
  type NewWebhook,
  type Webhook,
  type WebhookEvent,
} from '@lanternwright/contract/programs';
import type { Database } from '../database/connect.ts';
import { inTransaction } from '../database/in-transaction.ts';
import { isoTime } from '../database/sql-time.ts';
import { notFound, refused } from '../http/problem.ts';
import type { Viewer } from '../http/viewer.ts';
import { endOfRecord } from '../record/append.ts';
import type { Clock } from '../shop/clock.ts';

/** Longest wait for whoever is told. */
const PATIENCE_MS = 10_000;
/** Tries of one message: the queue waits longer after each, about 19 hours in all. */
const MOST_TRIES = 12;
const SHOWN_DAYS = 30;
const MOST_SHOWN = 200;
/** So much of what went wrong is kept. */
const PROBLEM_LENGTH = 200;

const LIST = `
  select w.id, w.name, w.url, w.events, m.name as "madeBy",
    ${isoTime('w.made_at')} as "madeAt", ${isoTime('w.ended_at')} as "endedAt", ${isoTime('d.last')} as "lastDeliveredAt",
    coalesce(d.waiting, 0) as waiting, coalesce(d.given_up, 0) as "givenUp"
  from webhook w join person m on m.id = w.made_by
  left join lateral (
    select max(delivered_at) as last, count(given_up_at) ::int as given_up,
      count(*) filter (where delivered_at is null and given_up_at is null) ::int as waiting
    from delivery where webhook_id = w.id
  ) d on true
  order by w.ended_at is not null, w.made_at desc limit ${MOST_SHOWN}`;

const DELIVERIES = `
  select id, event, tries, status, problem, ${isoTime('at')} as at, ${isoTime('delivered_at')} as "deliveredAt",
    ${isoTime('given_up_at')} as "givenUpAt", ${isoTime('last_try_at')} as "lastTryAt"
  from delivery where webhook_id = $1 order by delivery.at desc, id limit ${DELIVERIES_SHOWN}`;

const UNIT = `json_build_object('id', u.id, 'name', u.name, 'owner', json_build_object('id', o.id, 'name', o.name))`;
const OF_UNIT = 'join owner o on o.id = u.owner_id';

/** What is told after $1, up to $2: places of the record for the first two, days for the others. */
const TOLD: Record<WebhookEvent, string> = {
  release: `
    select e.at, json_build_object('jobId', j.id, 'jobNumber', j.number, 'jobTitle', j.title, 'unit', ${UNIT},
      'position', e.body ->> 'position', 'releasedBy', e.by ->> 'name', 'followUp', e.body -> 'followUp',
      'inSpiteOfSomething', jsonb_array_length(e.body -> 'overridden') > 0) as data, e.seq as nth
    from entry e join job j on j.id = e.stream_id ::uuid join unit u on u.id = j.unit_id ${OF_UNIT}
    where e.stream = 'job' and e.body ->> 'kind' = 'wheel-end-released' and e.seq > $1 and e.seq <= $2`,
  order: `
    select e.at, json_build_object('orderId', p.id, 'orderNumber', p.number, 'supplier', p.supplier, 'status', p.status,
      'expected', p.expected, 'what', substr(e.body ->> 'kind', 7), 'by', e.by ->> 'name') as data, e.seq as nth
    from entry e join purchase p on p.id = e.stream_id ::uuid
    where e.stream = 'order' and e.seq > $1 and e.seq <= $2`,
  due: `
    select min(d.due_on) ::timestamptz as at, json_build_object('unit', ${UNIT}, 'works',
      json_agg(json_build_object('position', d.position, 'work', d.work, 'dueOn', d.due_on)
        order by d.position, d.work)) as data, row_number() over (order by u.id) as nth
    from due d join unit u on u.id = d.unit_id ${OF_UNIT}
    where d.due_on > $1 ::date and d.due_on <= $2 ::date group by u.id, o.id`,
  'follow-up': `
    select f.by_date ::timestamptz as at, json_build_object('unit', ${UNIT}, 'jobId', f.job_id, 'position', f.position,
      'kind', f.kind, 'what', f.what, 'dueOn', f.by_date) as data, row_number() over (order by f.job_id, f.position, f.kind) as nth
    from follow_up f join unit u on u.id = f.unit_id ${OF_UNIT}
    where f.done_at is null and f.by_date > $1 ::date and f.by_date <= $2 ::date`,
};

interface Following {
  id: string;
  events: WebhookEvent[];
  seenSeq: string;
  toldDay: string;
}

/** Why a message did not come, in words. */
function problemOf(error: unknown): string {
  if (!(error instanceof Error)) return String(error);
  if (error.name === 'TimeoutError') return `No answer within ${PATIENCE_MS / 1000} seconds`;
  const { cause } = error;
  return (cause instanceof Error ? cause.message : error.message).slice(0, PROBLEM_LENGTH);
}

/**
 * Programs that are told of what happens. What is told follows from the record and from what is due, so that nothing is
 * forgotten or told twice: a message is written where the place in the record moves on, and sent by the queue.
 */
export function webhooksService(
  db: Database,
  { enqueue }: { enqueue: (deliveryId: string) => Promise<void> },
  clock: Clock,
) {
  async function one(id: string): Promise<void> {
    const rows = await db.sequelize.query('select 1 from webhook where id = $1 and ended_at is null', {
      type: QueryTypes.SELECT,
      bind: [id],
    });
    if (rows.length === 0) throw notFound('webhook');
  }

  async function add(webhookId: string, event: string, at: string, data: object): Promise<void> {
    const id = randomUUID();
    await db.sequelize.query(
      'insert into delivery (id, webhook_id, event, body, at) values ($1, $2, $3, $4 ::jsonb, $5)',
      { bind: [id, webhookId, event, JSON.stringify({ type: event, timestamp: at, data }), clock.now()] },
    );
    await enqueue(id);
  }

  /** Writes what one is to be told of the record up to a place, and of the days up to today. */
  async function follow(
    { id, events, seenSeq, toldDay }: Following,
    end: number,
    today: string,
  ): Promise<void> {
    for (const event of events) {
      const ofRecord = event === 'release' || event === 'order';
      const rows = await db.sequelize.query<{ at: Date; data: object }>(
        `select at, data from (${TOLD[event]}) told order by at, nth`,
        { type: QueryTypes.SELECT, bind: ofRecord ? [seenSeq, end] : [toldDay, today] },
      );
      for (const { at, data } of rows) await add(id, event, at.toISOString(), data);
    }
    await db.sequelize.query('update webhook set seen_seq = $2, told_day = $3 where id = $1', {
      bind: [id, end, today],
    });
  }

  return {
    list: () => db.sequelize.query<Webhook>(LIST, { type: QueryTypes.SELECT }),

    /** The secret is told once. It hears of what happens from now on. */
    async make({ name, url, events }: NewWebhook, { person }: Viewer) {
      const id = randomUUID();
      const secret = `whsec_${randomBytes(32).toString('base64')}`;
      await db.sequelize.query(
        `insert into webhook (id, name, url, secret, events, made_by, made_at, seen_seq, told_day)
         values ($1, $2, $3, $4, $5 ::text[], $6, $7, $8, $9)`,
        {
          bind: [
            ...[id, name, url, secret, [...new Set(events)], person.id],
            ...[clock.now().toISOString(), await endOfRecord(db), clock.today()],
          ],
        },
      );
      return { id, secret };
    },

    async end(id: string): Promise<{ id: string }> {
      await one(id);
      await inTransaction(db, async () => {
        await db.sequelize.query('update webhook set ended_at = $2 where id = $1', {
          bind: [id, clock.now()],
        });
        await db.sequelize.query(
          'delete from delivery where webhook_id = $1 and delivered_at is null and given_up_at is null',
          { bind: [id] },
        );
      });
      return { id };
    },

    async deliveries(id: string): Promise<Delivery[]> {
      return db.sequelize.query<Delivery>(DELIVERIES, { type: QueryTypes.SELECT, bind: [id] });
    },

    async tryOut(id: string): Promise<{ id: string }> {
      await one(id);
      await inTransaction(db, () => add(id, 'try', clock.now().toISOString(), {}));
      return { id };
    },

    /** @throws HttpProblem 422 where it was not given up */
    async again(id: string): Promise<{ id: string }> {
      await inTransaction(db, async () => {
        const rows = await db.sequelize.query(
          `update delivery d set given_up_at = null, tries = 0 from webhook w
           where d.id = $1 and w.id = d.webhook_id and w.ended_at is null and d.given_up_at is not null returning d.id`,
          { type: QueryTypes.SELECT, bind: [id] },
        );
        if (rows.length === 0) throw refused('Only a message that was given up is sent again');
        await enqueue(id);
      });
      return { id };
    },

    /** Writes the messages that follow from what was recorded and what fell due since. */
    async tell(): Promise<void> {
      const today = clock.today();
      const due = await db.sequelize.query<{ id: string }>(
        `select id from webhook where ended_at is null and (told_day < $1 ::date
           or seen_seq < (select coalesce(max(seq), 0) from entry)) order by id`,
        { type: QueryTypes.SELECT, bind: [today] },
      );
      for (const { id } of due)
        await inTransaction(db, async () => {
          // Two servers that come at once: the second finds nothing left to tell.
          const [webhook] = await db.sequelize.query<Following>(
            `select id, events, seen_seq ::text as "seenSeq", to_char(told_day, 'YYYY-MM-DD') as "toldDay"
             from webhook where id = $1 and ended_at is null for update`,
            { type: QueryTypes.SELECT, bind: [id] },
          );
          if (webhook) await follow(webhook, await endOfRecord(db), today);
        });
      await db.sequelize.query(
        `delete from delivery where at < $1 ::timestamptz - interval '${SHOWN_DAYS} days'`,
        { bind: [clock.now().toISOString()] },
      );
    },

    /**
     * Sends one message. @throws Error where it did not come and is to be tried again: the queue does
     * @source Standard Webhooks 1.0: HMAC-SHA256 of id, time and body
     */
    async deliver(id: string): Promise<void> {
      const [message] = await db.sequelize.query<{
        url: string;
        secret: string;
        body: object;
        tries: number;
      }>(
        `select w.url, w.secret, d.body, d.tries from delivery d join webhook w on w.id = d.webhook_id
         where d.id = $1 and d.delivered_at is null and d.given_up_at is null and w.ended_at is null`,
        { type: QueryTypes.SELECT, bind: [id] },
      );
      if (!message) return;
      const body = JSON.stringify(message.body);
      const now = clock.now();
      const { status, problem } = await fetch(message.url, {
        method: 'POST',
        headers: {
          'content-type': 'application/json',
          'user-agent': 'Lanternwright',
          'webhook-id': id,
          'webhook-timestamp': String(Math.floor(now.getTime() / 1000)),
          'webhook-signature': new Signer(message.secret).sign(id, now, body),
        },
        body,
        redirect: 'manual',
        signal: AbortSignal.timeout(PATIENCE_MS),
      }).then(
        async (answer) => {
          await answer.body?.cancel();
          return { status: answer.status, problem: answer.ok ? null : `Answered with ${answer.status}` };
        },
        (error: unknown) => ({ status: null, problem: problemOf(error) }),
      );
      const isLast = message.tries + 1 >= MOST_TRIES;
      await db.sequelize.query(
        `update delivery set tries = tries + 1, last_try_at = $2, status = $3, problem = $4,
           delivered_at = case when $4 ::text is null then $2 ::timestamptz end,
           given_up_at = case when $4 ::text is not null and $5 then $2 ::timestamptz end
         where id = $1`,
        { bind: [id, now.toISOString(), status, problem, isLast] },
      );
      if (problem !== null && !isLast) throw new Error(`A message was not taken: ${problem}`);
    },
  };
}
export type WebhooksService = ReturnType<typeof webhooksService>;
