import { Link } from 'react-router';
import { FloorLine, FloorPart } from '../plan/floor-part.tsx';
import { formatDate } from '../shell/words.ts';
import { orderWords } from './shortage-words.ts';
import { useShortagesQuery } from './stores-api.ts';

const SHOWN = 4;
/** What is planned moves through the day; what is short of it is looked at now and then. */
const LOOK_MS = 5 * 60_000;

/** Parts that will be short, on the Floor: those first that have to be ordered first. */
export function ShortOnFloor() {
  const { data } = useShortagesQuery(undefined, { pollingInterval: LOOK_MS });
  if (!data || data.length === 0) return null;
  return (
    <FloorPart
      title="Parts short"
      more={
        data.length > SHOWN && (
          <Link to="/stores?by=shortage" className="underline underline-offset-2">
            all {data.length}
          </Link>
        )
      }
    >
      {data.slice(0, SHOWN).map((short) => (
        <FloorLine
          key={short.part.id}
          to="/stores?by=shortage"
          head={`${short.part.number}, ${short.missing} short from ${formatDate(short.shortOn!)}`}
        >
          {short.part.title}. {orderWords(short)}
        </FloorLine>
      ))}
    </FloorPart>
  );
}
