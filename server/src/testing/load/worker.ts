import { openWork, record, type Caller, type Sent } from './technician.ts';

export const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
export const AGAIN_MS = 60;

/** What a technician's device can do wrong with a record. */
export const misuses = ['sent twice at once', 'sent out of order', 'answer not waited for'] as const;
export type Misuse = (typeof misuses)[number];

/** A technician who works on, whatever happens: what was not acknowledged is sent again, to any server. */
export class Worker {
  readonly acknowledged = new Set<string>();
  repeated = 0;
  /** How often nobody answered, and how often the answer was that it could not be stored now. */
  unanswered = 0;
  failed = 0;
  /** What the next record is done to. */
  next: Misuse | null = null;
  private queue: Sent[] = [];
  private readonly caller: Caller;
  private readonly bases: readonly string[];

  constructor(caller: Caller, bases: readonly string[]) {
    this.caller = caller;
    this.bases = bases;
  }

  private anywhere(): Caller {
    return { ...this.caller, base: this.bases[Math.floor(Math.random() * this.bases.length)]! };
  }

  private async send(sent: Sent): Promise<boolean> {
    try {
      const { status, body } = await record(this.anywhere(), sent);
      if (status === 200) return true;
      // 4xx would be a record lost for good; 5xx and no answer at all are tried again.
      if (status < 500) throw new Error(`${sent.command.kind}: ${status} ${JSON.stringify(body)}`);
      this.failed += 1;
    } catch (error) {
      if (!(error instanceof TypeError)) throw error;
      this.unanswered += 1;
    }
    return false;
  }

  private async misuse(sent: Sent): Promise<void> {
    const fault = this.next;
    this.next = null;
    if (fault === 'sent twice at once') await Promise.all([this.send(sent), this.send(sent)]);
    if (fault === 'answer not waited for') void this.send(sent).catch(() => undefined);
    // Before its turn it is recorded and does not count, or refused. A cycle sent so is void once the nut is turned, and
    // the measurement after it is rightly refused: that is no loss, and is not tried here.
    const later = this.queue[1];
    if (fault === 'sent out of order' && later && later.command.kind !== 'reading-taken')
      await record(this.anywhere(), later).catch((error: unknown) => {
        if (!(error instanceof TypeError)) throw error;
      });
    this.repeated += 1;
  }

  async work(goesOn: () => boolean): Promise<void> {
    while (goesOn()) {
      if (this.queue.length === 0) {
        try {
          this.queue = await openWork(this.anywhere());
        } catch {
          await pause(AGAIN_MS);
          continue;
        }
      }
      const [sent] = this.queue as [Sent];
      if (this.next) await this.misuse(sent);
      if (await this.send(sent)) {
        this.acknowledged.add(sent.id);
        this.queue.shift();
      } else {
        this.repeated += 1;
        await pause(AGAIN_MS);
      }
    }
  }
}
