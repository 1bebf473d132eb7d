import { useState } from 'react';
import type { ReadingRow } from '@lanternwright/contract/fleet';
import type { Sheet } from '@lanternwright/core/procedure';
import { formatDate, formatDistance } from '../shell/words.ts';
import { HistoryChart, type HistoryPoint } from '../ui/history-chart.tsx';
import type { ReaderUnits } from '@lanternwright/core/quantity';
import { useReader } from '../shell/use-reader.ts';

type Over = 'distance' | 'date';

function pointsOf(readings: readonly ReadingRow[], over: Over, reader: ReaderUnits): HistoryPoint[] {
  const per = reader.length === 'in' ? 25.4 : 1;
  return readings
    .filter((r) => over === 'date' || r.km !== null)
    .map((r) => ({
      x: over === 'distance' ? r.km! : Date.parse(r.at),
      value: r.endPlayMm / per,
      label: `${r.round === 0 ? 'as found' : r.final ? 'as left' : 'before adjusting again'}, ${formatDate(r.at)}${r.km === null ? '' : `, ${formatDistance(r.km, reader)}`}, ${r.by}`,
      state: r.verdict,
      asFound: r.round === 0,
    }));
}

/** Readings of one wheel end over distance or date, with its band. With a height it is small and has no switch. */
export function ReadingsChart({
  readings,
  band,
  height,
}: {
  readings: readonly ReadingRow[];
  band: Sheet['band'];
  height?: number;
}) {
  const reader = useReader();
  const unit = reader.length;
  const hasDistance = readings.some((r) => r.km !== null);
  const [chosen, setOver] = useState<Over>('distance');
  const over = hasDistance ? chosen : 'date';
  const settled = readings.filter((r) => r.round === 0 || r.final);
  if (settled.length === 0) {
    return (
      <p className="py-6 text-muted">No reading yet. The first job on this wheel end starts the line.</p>
    );
  }
  const inUnit = (si: number) => (unit === 'in' ? si / 0.0254 : si * 1000);
  const shownBand = band ? { min: inUnit(band.min.si), max: inUnit(band.max.si) } : null;
  const toggle = (o: Over) =>
    `min-h-9 rounded-md px-3 text-13 ${o === over ? 'bg-action text-band-ink' : 'hover:bg-side'}`;
  return (
    <div>
      <div className="flex items-center justify-between gap-3 pb-1">
        <p className="caption">{unit === 'in' ? 'Inches' : 'Millimetres'}. Ring: as found. Disc: as left.</p>
        {hasDistance && !height && (
          <div role="group" aria-label="Chart over" className="flex">
            {(['distance', 'date'] as const).map((o) => (
              <button
                key={o}
                type="button"
                aria-pressed={o === over}
                onClick={() => setOver(o)}
                className={toggle(o)}
              >
                over {o}
              </button>
            ))}
          </div>
        )}
      </div>
      <HistoryChart
        points={pointsOf(settled, over, reader)}
        band={shownBand}
        digits={unit === 'in' ? 4 : 3}
        unit={unit}
        height={height}
        formatX={(x) =>
          over === 'distance' ? formatDistance(x, reader) : formatDate(new Date(x).toISOString()).slice(-8)
        }
      />
    </div>
  );
}
