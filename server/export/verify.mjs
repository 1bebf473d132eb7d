// Proves an exported record: node verify.mjs [folder]. Needs Node.js 20 or newer and nothing else; README.md beside it
// says what each file holds. It shares no code with the program that wrote the export.
import { createHash, createPublicKey, verify } from 'node:crypto';
import { createReadStream, existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { fileURLToPath } from 'node:url';

const folder = process.argv[2] ?? fileURLToPath(new URL('.', import.meta.url));
const at = (...names) => join(folder, ...names);
const sha256 = (data) => createHash('sha256').update(data).digest('hex');

class Wrong extends Error {}
const wrong = (part, reason) => {
  throw new Wrong(`${part}: ${reason}`);
};

async function* linesOf(path) {
  if (!existsSync(path)) return;
  for await (const line of createInterface({ input: createReadStream(path, 'utf8'), crlfDelay: Infinity }))
    if (line !== '') yield JSON.parse(line);
}

/** JSON with members sorted by name and no spaces. */
function canonical(value) {
  if (Array.isArray(value)) return `[${value.map(canonical).join(',')}]`;
  if (value === null || typeof value !== 'object') return JSON.stringify(value);
  const members = Object.keys(value)
    .sort()
    .map((k) => `${JSON.stringify(k)}:${canonical(value[k])}`);
  return `{${members.join(',')}}`;
}

function hashOf({ seq, form, id, stream, streamId, version, at: when, by, body, prevHash }) {
  if (form === 1)
    return sha256(canonical({ seq, id, jobId: streamId, version, at: when, by, body, prevHash }));
  const content = sha256(canonical({ id, stream, streamId, version, at: when, by, body }));
  return sha256(['2', seq, prevHash, content].join('\n'));
}

/** What rows must say, as far as it follows from single entries. */
const expected = { job: new Map(), tool: new Map(), person: new Map(), unit: new Map() };
const numbers = new Map();

function follow({ stream, streamId: id, version, body }) {
  const keep = (more) => expected[stream].set(id, { ...expected[stream].get(id), ...more, version });
  if (body.kind === 'jobs-numbered')
    for (const [job, number] of Object.entries(body.numbers)) numbers.set(job, number);
  if (stream === 'job')
    keep(
      body.kind === 'job-opened'
        ? { unit_id: body.unitId, title: body.title, ...(body.number ? { number: body.number } : {}) }
        : {},
    );
  if (stream === 'tool') {
    // A recall ends its calibration, a certificate begins one.
    const until = { 'tool-recalled': null, 'tool-certified': body.certificate?.until }[body.kind];
    const before = expected.tool.get(id)?.tool;
    if (body.tool) keep({ tool: body.tool, code: body.tool.code });
    else keep(until === undefined ? {} : { tool: { ...before, calibratedUntil: until } });
  }
  if (stream === 'person') keep(body.name ? { name: body.name, role: body.role } : {});
  if (stream === 'unit') {
    const { unit } = body;
    keep(unit ? { name: unit.name, plate: unit.plate, kind: unit.unitKind, owner_id: unit.owner.id } : {});
  }
}

async function verifyChainAndStreams() {
  const notes = new Map();
  for await (const note of linesOf(at('notes.jsonl'))) notes.set(note.seq, note.found);
  const hashes = new Map();
  const versions = new Map();
  const photos = [];
  const certificates = [];
  const batches = new Map();
  let prev = '0'.repeat(64);
  let last = 0;
  for await (const entry of linesOf(at('record.jsonl'))) {
    const next = last + 1;
    if (entry.seq !== next) wrong('chain', `record ${next} is missing`);
    const own = hashOf(entry);
    const found = sha256([prev, entry.prevHash, entry.hash, own].join('|'));
    if ((entry.prevHash !== prev || own !== entry.hash) && notes.get(next) !== found)
      wrong('chain', `record ${next} was altered, or does not follow the one before it`);
    const stream = `${entry.stream} ${entry.streamId}`;
    const version = (versions.get(stream) ?? 0) + 1;
    if (entry.version !== version) wrong('streams', `version ${version} of ${stream} is missing`);
    versions.set(stream, version);
    if (entry.stream === 'job' && entry.body.kind === 'photo-added')
      photos.push({ seq: next, id: entry.body.photoId, hash: entry.body.sha256 });
    if (entry.stream === 'tool' && entry.body.kind === 'tool-certified')
      certificates.push({ seq: next, ...entry.body.certificate });
    if (entry.stream === 'batch') batches.set(entry.streamId, entry.body);
    follow(entry);
    hashes.set(next, entry.hash);
    prev = entry.hash;
    last = next;
  }
  return { hashes, streams: versions.size, photos, certificates, batches, last };
}

async function verifyBatches(batches) {
  const seen = new Map();
  for await (const { batchId, n, row } of linesOf(at('batches.jsonl'))) {
    if (!batches.has(batchId)) wrong('batches', `rows of batch ${batchId} stand there without a record`);
    const batch = seen.get(batchId) ?? { rows: 0, hash: createHash('sha256') };
    if (n !== batch.rows) wrong('batches', `row ${batch.rows} of batch ${batchId} is missing`);
    batch.rows += 1;
    batch.hash.update(`${canonical(row)}\n`);
    seen.set(batchId, batch);
  }
  for (const [id, { rows, rowsHash }] of batches) {
    const batch = seen.get(id) ?? { rows: 0, hash: createHash('sha256') };
    if (batch.rows !== rows || batch.hash.digest('hex') !== rowsHash)
      wrong('batches', `the rows of batch ${id} are not those that were taken`);
  }
}

async function verifySeals(hashes, last) {
  // A shop that was restored without its key goes on with another: each seal is signed by one of them.
  const keys = readdirSync(folder)
    .filter((name) => /^seal-key(-[0-9a-f]{16})?\.pub\.pem$/.test(name))
    .map((name) => createPublicKey(readFileSync(at(name))));
  if (keys.length === 0) return 0;
  const chain = hashes.get(1);
  const held = new Set();
  let newest = null;
  for (const name of ['seals-of-database.jsonl', 'seals.jsonl']) {
    newest = null;
    for await (const { chain: of, seq, hash, at: when, signature } of linesOf(at(name))) {
      const text = ['lanternwright seal 1', of, seq, hash, when].join('\n');
      if (!keys.some((key) => verify(null, Buffer.from(text), key, Buffer.from(signature, 'base64'))))
        wrong('seals', `the seal at record ${seq} is forged, or signed with another key`);
      newest = of;
      if (of !== chain) continue;
      if (seq > last) wrong('seals', `record ${seq} was sealed and is not there: the end was cut off`);
      if (hashes.get(seq) !== hash) wrong('seals', `record ${seq} is not the one that was sealed`);
      held.add(seq);
    }
    if (newest !== null && newest !== chain)
      wrong('seals', 'the last seal is of another record: the chain was rewritten');
  }
  return held.size;
}

function verifyPhotos(photos) {
  for (const { seq, id, hash } of photos) {
    const path = at('photos', `${id}.jpg`);
    if (!existsSync(path)) wrong('photos', `the photo of record ${seq} is missing`);
    if (sha256(readFileSync(path)) !== hash) wrong('photos', `the photo of record ${seq} was swapped`);
  }
}

function verifyCertificates(certificates) {
  for (const { seq, id, type, sha256: hash } of certificates) {
    const path = at('certificates', `${id}.${type === 'image/jpeg' ? 'jpg' : 'pdf'}`);
    if (!existsSync(path)) wrong('certificates', `the certificate of record ${seq} is missing`);
    if (sha256(readFileSync(path)) !== hash)
      wrong('certificates', `the certificate of record ${seq} was swapped`);
  }
}

/** Rows of jobs, tools, people and units against the entries they follow from. What is reckoned is not proved here. */
async function verifyRows() {
  for (const [table, wanted] of Object.entries(expected)) {
    const left = new Map(wanted);
    for await (const row of linesOf(at('rows', `${table}.jsonl`))) {
      const says = left.get(row.id);
      // A unit of a file begins with the file's row.
      if (!says && table === 'unit' && row.version === 0) continue;
      if (!says) wrong('rows', `the row ${row.id} of ${table} follows from no record`);
      if (table === 'job') says.number ??= numbers.get(row.id);
      for (const [name, value] of Object.entries(says))
        if (canonical(row[name]) !== canonical(value))
          wrong('rows', `${name} of the row ${row.id} of ${table} is not what the record says`);
      left.delete(row.id);
    }
    for (const id of left.keys()) wrong('rows', `the row ${id} of ${table} is missing`);
  }
}

try {
  const { hashes, streams, photos, certificates, batches, last } = await verifyChainAndStreams();
  const seals = await verifySeals(hashes, last);
  await verifyBatches(batches);
  verifyPhotos(photos);
  verifyCertificates(certificates);
  await verifyRows();
  console.log(
    `${last} records in ${streams} streams, ${seals} seals, ${photos.length} photos, ${batches.size} batches: all hold.`,
  );
} catch (error) {
  if (!(error instanceof Wrong)) throw error;
  console.error(`Wrong: ${error.message}.`);
  process.exitCode = 1;
}
