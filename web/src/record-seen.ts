/** What the server is told, and tells: the last entry of the record that was seen something of. */
export const RECORD_SEEN = 'Record-Seen';

let seen = 0;

/** Remembers how far the record had come in what has just been shown. */
export function sawRecord(entry: string | null | undefined): void {
  const place = Number(entry ?? 0);
  if (Number.isSafeInteger(place)) seen = Math.max(seen, place);
}

/** Says what was seen, so that no list that is older than it comes from a standby. */
export function sendRecordSeen(headers: Headers): Headers {
  if (seen > 0) headers.set(RECORD_SEEN, String(seen));
  return headers;
}
