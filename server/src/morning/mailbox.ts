import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { text } from 'node:stream/consumers';
import { SMTPServer } from 'smtp-server';

/** A mail as it came in. */
interface Taken {
  from: string;
  to: string[];
  /** Head and body as they were sent. */
  raw: string;
}

const MOST = 200;

/**
 * A stand-in for a mail server with its mailbox: it takes what is sent to it on loopback, delivers nothing, and shows it
 * as text on a page.
 * @param ports 0 takes a free one
 */
export async function startMailbox(ports: { smtp: number; page: number }) {
  const mails: Taken[] = [];
  let refuses = false;
  const smtp = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    onMailFrom: (_address, _session, done) => done(refuses ? new Error('the mailbox is full') : null),
    onData(stream, { envelope }, done) {
      text(stream).then((raw) => {
        const from = envelope.mailFrom ? envelope.mailFrom.address : '';
        mails.unshift({ from, to: envelope.rcptTo.map((r) => r.address), raw });
        mails.splice(MOST);
        done();
      }, done);
    },
  });
  const page = createServer((_req, res) => {
    res.setHeader('Content-Type', 'text/plain; charset=utf-8');
    res.end(
      mails.map((m) => `To ${m.to.join(', ')}\n${m.raw}\n${'-'.repeat(72)}\n`).join('\n') || 'No mail yet.\n',
    );
  });
  await new Promise<void>((resolve, reject) => {
    smtp.on('error', reject);
    smtp.listen(ports.smtp, '127.0.0.1', resolve);
  });
  await new Promise<void>((resolve, reject) => {
    page.once('error', reject);
    page.listen(ports.page, '127.0.0.1', resolve);
  });
  return {
    mails,
    smtpPort: (smtp.server.address() as AddressInfo).port,
    pagePort: (page.address() as AddressInfo).port,
    /** From now on it takes nothing, or takes it again. */
    refuse(on: boolean): void {
      refuses = on;
    },
    async stop(): Promise<void> {
      await new Promise<void>((resolve) => smtp.close(() => resolve()));
      await new Promise<void>((resolve) => page.close(() => resolve()));
    },
  };
}
