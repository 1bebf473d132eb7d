import { createServer } from 'node:http';
import { parentPort, workerData } from 'node:worker_threads';

/** What the thread is told, and what it says. */
export type Told = { kind: 'progress'; what: string; percent: number } | { kind: 'close' };
export type Said =
  { kind: 'listening'; port: number } | { kind: 'failed'; message: string } | { kind: 'closed' };

const { port, host } = workerData as { port: number; host: string };
const say = (said: Said) => parentPort!.postMessage(said);
let now = { what: '', percent: 0 };

/** Looks the same with and without a script; with one it does not blink. */
const page = () => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Lanternwright is starting</title>
<noscript><meta http-equiv="refresh" content="3"></noscript>
<style>
:root { color-scheme: light dark; }
body { margin: 0; min-height: 100dvh; display: grid; grid-template-columns: 38% 1fr; font: 16px/22px system-ui, sans-serif;
  background: light-dark(#f3f0e8, #14201d); color: light-dark(#1b2322, #eceae2); }
aside, main { display: grid; align-content: center; gap: 14px; padding: 36px; }
aside { background: #17302b; color: #f3f0e8; }
h1 { margin: 0; font-size: 26px; line-height: 31px; }
p { margin: 0; max-width: 46ch; }
#what { font-size: 18px; line-height: 24px; font-weight: 600; }
progress { width: min(100%, 420px); height: 16px; accent-color: light-dark(#1d6b52, #63b795); }
@media (max-width: 700px) { body { grid-template-columns: 1fr; grid-template-rows: auto 1fr; } }
</style>
</head>
<body>
<aside>
<h1>Wheel ends, set right and on record</h1>
<p>Lanternwright is starting.</p>
</aside>
<main>
<p id="what" role="status">${now.what}: ${now.percent} of 100.</p>
<progress id="share" max="100" value="${now.percent}" aria-label="How far it is"></progress>
<p>This page opens the workshop by itself when it is ready.</p>
</main>
<script>
async function look() {
  try {
    const answer = await fetch('/api/ready', { cache: 'no-store' });
    if (answer.ok) return location.reload();
    const { what, percent } = await answer.json();
    if (what) document.getElementById('what').textContent = what + ': ' + percent + ' of 100.';
    if (percent !== undefined) document.getElementById('share').value = percent;
  } catch { /* Between the one server and the next nobody answers for a moment. */ }
  setTimeout(look, 700);
}
setTimeout(look, 700);
</script>
</body>
</html>
`;

const headers = {
  'Cache-Control': 'no-store',
  'Content-Security-Policy':
    "default-src 'none'; style-src 'unsafe-inline'; script-src 'unsafe-inline'; connect-src 'self'",
  'X-Content-Type-Options': 'nosniff',
};

const server = createServer((req, res) => {
  // Each request gets a connection of its own, so that none is left when the real server takes over.
  res.setHeader('Connection', 'close');
  if (!req.url?.startsWith('/api/')) {
    res.writeHead(200, { ...headers, 'Content-Type': 'text/html; charset=utf-8' }).end(page());
    return;
  }
  const problem = {
    ...{ type: 'urn:lanternwright:problem:starting', title: 'Starting', status: 503, code: 'starting' },
    detail: `${now.what}: ${now.percent} of 100. Try again in a moment.`,
    ...now,
  };
  res
    .writeHead(503, { ...headers, 'Content-Type': 'application/problem+json', 'Retry-After': '2' })
    .end(JSON.stringify(problem));
});
server.on('error', (error) => say({ kind: 'failed', message: error.message }));
server.listen(port, host, () => {
  const address = server.address();
  say({ kind: 'listening', port: typeof address === 'object' && address ? address.port : port });
});

parentPort!.on('message', (told: Told) => {
  if (told.kind === 'progress') now = { what: told.what, percent: told.percent };
  else {
    server.close(() => {
      say({ kind: 'closed' });
      parentPort!.close();
    });
    server.closeAllConnections();
  }
});
