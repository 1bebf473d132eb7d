import { startMailbox } from './mailbox.ts';

const mailbox = await startMailbox({ smtp: 7625, page: 7626 });
console.log(
  `The mailbox takes mail on smtp://127.0.0.1:${mailbox.smtpPort} and shows it at http://127.0.0.1:${mailbox.pagePort}. ` +
    'Nothing is delivered. Stop with Ctrl-C.',
);
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => void mailbox.stop());
