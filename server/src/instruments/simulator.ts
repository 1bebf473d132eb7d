import { createServer as createHttp } from 'node:http';
import { createServer, type AddressInfo, type Server, type Socket } from 'node:net';
import express from 'express';
import { z } from 'zod';

const sendSchema = z.object({ line: z.string().min(1).max(10_000) });

/** Knobs of the stand-ins, as a page of its own. */
const page = `<!doctype html><html lang="en"><meta charset="utf-8"><title>Simulated instruments</title>
<meta name="viewport" content="width=device-width, initial-scale=1">
<style>body{font:18px system-ui,sans-serif;margin:24px auto;max-width:560px;padding:0 16px}
label,button{display:block;margin:12px 0}input[type=range]{width:100%}button{min-height:56px;font-size:18px;width:100%}
output{font-family:monospace;font-size:26px}fieldset{margin:18px 0;border-radius:8px}</style>
<h1>Simulated instruments</h1><p>Stand-ins for a dial indicator, a torque wrench and a hub thermometer. Turn, then send.</p>
<fieldset><legend>Dial indicator DI-04</legend><label>Reading <output id="di">0.0000 in</output>
<input id="d" type="range" min="-20" max="200" value="0"></label><button data-from="di" data-name="DI-04">Send the reading</button></fieldset>
<fieldset><legend>Torque wrench TW-03</legend><label>Torque <output id="tw">200 lbf-ft</output>
<input id="t" type="range" min="0" max="600" value="200"></label><button data-from="tw" data-name="TW-03">Send the torque</button></fieldset>
<fieldset><legend>Hub thermometer HT-01</legend><label>Temperature <output id="ht">45 degC</output>
<input id="h" type="range" min="0" max="250" value="45"></label><button data-from="ht" data-name="HT-01">Send the temperature</button></fieldset>
<fieldset><legend>Trouble</legend><button data-line="~~#garbage">Send garbage</button><button data-line="DI-04 271 Nm">Send a wrong unit</button>
<button data-line="DI-04 3 in">Send what cannot be</button><button id="drop">Drop the connection</button></fieldset>
<p id="said" role="status"></p><script src="/knobs.js"></script></html>`;

const script = `const by=(id)=>document.getElementById(id);
const show=()=>{by('di').textContent=(by('d').value/10000).toFixed(4)+' in';by('tw').textContent=by('t').value+' lbf-ft';by('ht').textContent=by('h').value+' degC';};
document.addEventListener('input',show);show();
const post=async(path,body)=>{const r=await fetch(path,{method:'POST',headers:{'content-type':'application/json'},body:JSON.stringify(body)});by('said').textContent=await r.text();};
document.addEventListener('click',(e)=>{const b=e.target.closest('button');if(!b)return;if(b.id==='drop')return post('/drop',{});
post('/send',{line:b.dataset.line??b.dataset.name+' '+by(b.dataset.from).textContent});});`;

const portOf = (server: Server) => (server.address() as AddressInfo).port;
const listening = (server: Server, port: number) =>
  new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', resolve);
  });

/**
 * Stand-ins for instruments: a socket on loopback that says what the knobs page sends, one line a reading.
 * @param ports 0 takes a free one
 */
export async function startSimulator(ports: { socket: number; page: number }) {
  const sockets = new Set<Socket>();
  const lines = createServer((socket) => {
    sockets.add(socket);
    socket.on('error', () => undefined);
    socket.on('close', () => sockets.delete(socket));
  });
  const say = (line: string) => sockets.forEach((socket) => socket.write(`${line}\n`));
  const drop = () => sockets.forEach((socket) => socket.destroy());
  const app = express();
  app.use(express.json());
  app.get('/', (_req, res) => res.type('html').send(page));
  app.get('/knobs.js', (_req, res) => res.type('text/javascript').send(script));
  app.post('/send', (req, res) => {
    const sent = sendSchema.safeParse(req.body);
    if (!sent.success) return res.status(422).send('Nothing to send');
    say(sent.data.line);
    return res.send(`Sent to ${sockets.size}: ${sent.data.line}`);
  });
  app.post('/drop', (_req, res) => {
    drop();
    res.send('Dropped');
  });
  const web = createHttp(app);
  await listening(lines, ports.socket);
  await listening(web, ports.page);
  return {
    socketPort: portOf(lines),
    pagePort: portOf(web),
    say,
    drop,
    async stop(): Promise<void> {
      drop();
      await Promise.all([lines, web].map((server) => new Promise((resolve) => server.close(resolve))));
    },
  };
}
