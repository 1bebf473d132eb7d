/** A device's clock may be off by so much, ms. Rule of this product. */
const CLOCK_SLACK_MS = 10 * 60_000;

/**
 * When something was done: as the device says, where that can be; else when it was received. A clock that is ahead of
 * the server's, or says a time before the job was opened, is not believed, and nothing is lost by it.
 * @param said by the device, ISO; undefined where it was sent at once
 */
export function doneAtOf(said: string | undefined, received: string, opened: string): string {
  if (!said) return received;
  const at = Date.parse(said);
  const possible = at <= Date.parse(received) + CLOCK_SLACK_MS && at >= Date.parse(opened) - CLOCK_SLACK_MS;
  return possible ? said : received;
}
