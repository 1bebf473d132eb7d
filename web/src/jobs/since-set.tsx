import { bandInMm } from '@lanternwright/core/procedure';
import {
  AS_FOUND,
  meterKm,
  readingsOf,
  describeObjection,
  verdictOf,
  type WheelEnd,
} from '@lanternwright/core/traveller';
import { sinceSet } from '@lanternwright/core/wear';
import { formatDate, formatDistance, formatGrowth, formatPlay } from '../shell/words.ts';
import { useGraduation } from '../tools/tool-field.tsx';
import { Note } from '../ui/problem-note.tsx';
import type { OpenJob } from './use-job.ts';
import { useReader } from '../shell/use-reader.ts';

/** What became of the last setting of a wheel end, once it is measured as found. */
export function SinceSet({ open, wheelEnd }: { open: OpenJob; wheelEnd: WheelEnd }) {
  const reader = useReader();
  const unit = reader.length;
  const { position, sheet } = wheelEnd;
  // Less than a graduation is not said to be a difference.
  const leastMm = useGraduation(readingsOf(wheelEnd, AS_FOUND).at(-1)?.gauge ?? '');
  const found = verdictOf(wheelEnd, AS_FOUND);
  if (!found || found.verdict === 'repeat' || !sheet.band) return null;
  const before = open.detail.before.filter((r) => r.position === position);
  const since = sinceSet(
    before,
    {
      jobId: open.job.id,
      round: AS_FOUND,
      endPlayMm: found.endPlayMm,
      km: meterKm(open.job.meter),
      final: false,
    },
    bandInMm(sheet.band),
  );
  if (!since) return null;
  const differs = Math.abs(since.foundMm - since.setMm) >= leastMm;
  const release = open.detail.releasedBefore.find((r) => r.position === position);
  const rate = (mmPer10000Km: number) => formatGrowth(mmPer10000Km, reader);
  return (
    <Note tone={since.finding === 'walked' ? 'trouble' : 'plain'}>
      <p className="font-semibold">
        {since.finding === 'walked' ? 'The nut has moved since it was set.' : 'The setting has held.'}
      </p>
      <p>
        Left at {formatPlay(since.setMm, unit)}
        {release && ` on ${formatDate(release.at)}`}, found at {formatPlay(since.foundMm, unit)}
        {since.km !== null && `, ${formatDistance(since.km, reader)} later`}.
        {differs && since.mmPer10000Km !== null && ` That is ${rate(since.mmPer10000Km)}`}
        {differs && since.usualMmPer10000Km !== null && since.mmPer10000Km !== null
          ? `, where it used to be ${rate(since.usualMmPer10000Km)}.`
          : differs
            ? since.mmPer10000Km !== null && '.'
            : '. The gauge shows no difference.'}
      </p>
      {release && release.overridden.length > 0 && (
        <p>
          It was released by {release.by} in spite of:{' '}
          {release.overridden.map((o) => describeObjection(wheelEnd, o, reader)).join('. ')}.
        </p>
      )}
      {since.finding === 'walked' && <p>Look at its lock before the bearings are blamed.</p>}
    </Note>
  );
}
