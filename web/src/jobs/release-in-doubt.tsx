import type { WheelEnd } from '@lanternwright/core/traveller';
import { formatTime } from '../shell/words.ts';

/** A release that does not hold any more, and the way out. */
export function ReleaseInDoubt({ wheelEnd: { position, release, lapsed } }: { wheelEnd: WheelEnd }) {
  if (release?.inDoubt) {
    const { reason, at, by } = release.inDoubt;
    return (
      <p className="rounded-r-md border-l-4 border-rust bg-rust-wash px-4 py-3">
        <strong>The release of {position} is in doubt.</strong> {by.name} corrected the record behind it,{' '}
        {formatTime(at)}: {reason}. Open a job on {position}: it begins with what is missing, and its release
        settles this one. Until then the unit stays off the road.
      </p>
    );
  }
  if (lapsed)
    return (
      <p className="rounded-r-md border-l-4 border-rust bg-rust-wash px-4 py-3">
        <strong>The release of {position} does not hold any more.</strong> What both sides share was opened
        after it. Finish what is open, then release {position} again.
      </p>
    );
  return null;
}
