import { startListener } from './listener.ts';

const secret = process.env['WEBHOOK_SECRET'];
if (!secret) {
  console.error('Set the secret of the webhook: WEBHOOK_SECRET=whsec_… npm run listener');
  process.exit(1);
}
const port = Number(process.env['LISTENER_PORT'] ?? 7640);
const { listener, stop } = await startListener(port, secret, ({ type, data }) =>
  console.log(`${type} ${JSON.stringify(data)}`),
);
console.log(
  `Listening on http://127.0.0.1:${listener.port}/hook; what was heard is at /. ` +
    `It goes wrong by: POST /fault {"fault": "outage"}. Stop with Ctrl-C.`,
);
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => void stop());
