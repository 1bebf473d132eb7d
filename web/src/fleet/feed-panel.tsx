import type { FeedStand } from '@lanternwright/contract/feed';
import { problemText } from '../api.ts';
import { formatTime } from '../shell/words.ts';
import { Button } from '../ui/button.tsx';
import { Note } from '../ui/problem-note.tsx';
import { useAskFeedMutation, useFeedQuery } from './meter-files-api.ts';

function Stand({ feed }: { feed: FeedStand }) {
  const says = feed.answeredAt ? `It spoke last ${formatTime(feed.answeredAt)}.` : 'It has not spoken yet.';
  return (
    <>
      <p className="text-14">
        {feed.url ? (
          <>
            Asked every quarter of an hour at <span className="figure">{feed.url}</span>. {says}
          </>
        ) : feed.pushes ? (
          `It brings its readings by itself. ${says}`
        ) : (
          'No feed is set. Whoever looks after the server sets FEED_URL, and FEED_SECRET for one that pushes.'
        )}
      </p>
      {feed.trouble && <Note tone="trouble">{feed.trouble}. What it has is asked for again.</Note>}
      {feed.kept + feed.known > 0 && (
        <p className="text-14">
          {feed.kept.toLocaleString('en')} readings kept, {feed.known.toLocaleString('en')} told nothing new.
        </p>
      )}
      {feed.strangers.length > 0 && (
        <div className="text-14">
          <p className="font-semibold">These of its vehicles are no unit here, by plate or name:</p>
          <ul className="pt-1">
            {feed.strangers.slice(0, 12).map(({ vehicle, times }) => (
              <li key={vehicle}>
                <span className="figure">{vehicle}</span>{' '}
                <span className="text-muted">{times === 1 ? 'once' : `${times} times`}</span>
              </li>
            ))}
            {feed.strangers.length > 12 && (
              <li className="text-muted">and {feed.strangers.length - 12} more</li>
            )}
          </ul>
        </div>
      )}
    </>
  );
}

/** The units' own feed of readings: whether it speaks, and of whom. */
export function FeedPanel() {
  const { data: feed, error } = useFeedQuery(undefined, { pollingInterval: 60_000 });
  const [ask, asking] = useAskFeedMutation();
  return (
    <section aria-label="The units’ own feed" className="flex flex-col gap-3 border-t border-rule pt-5">
      <h2 className="text-18">The units’ own feed</h2>
      {error && <Note tone="trouble">{problemText(error)}</Note>}
      {feed && <Stand feed={feed} />}
      {asking.error && <Note tone="trouble">{problemText(asking.error)}</Note>}
      {feed?.url && (
        <div>
          <Button disabled={asking.isLoading} onClick={() => void ask()}>
            Ask it now
          </Button>
        </div>
      )}
    </section>
  );
}
