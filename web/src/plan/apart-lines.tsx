import type { ComponentType } from 'react';
import type { Floor } from '@lanternwright/contract/plan';
import { mayRollInYard } from '@lanternwright/core/traveller';
import { useReader } from '../shell/use-reader.ts';
import { formatDate, formatPlay } from '../shell/words.ts';
import { describeLeft } from '../fleet/describe-left.ts';
import type { FloorLineProps } from './floor-side.tsx';

function headOf({
  outOfService,
  left,
  outOfBand,
}: Omit<Floor['apart'][number], 'unit' | 'position'>): string {
  if (outOfBand && !outOfService && left.length === 0) return `Left ${outOfBand.verdict}`;
  return mayRollInYard(outOfService) ? 'Not for the road' : 'Not to roll';
}

/** Wheel ends that are not as they should be and in no job: rare, so that the first screen does not carry them. */
export function ApartLines({ apart, Line }: { apart: Floor['apart']; Line: ComponentType<FloorLineProps> }) {
  const reader = useReader();
  return apart.map(({ unit, position, outOfService, left, outOfBand }) => (
    <Line
      key={`${unit.id}${position}`}
      to={`/fleet/${unit.id}?at=${position}`}
      act="Look"
      head={`${headOf({ outOfService, left, outOfBand })}: ${unit.name}, ${position}`}
    >
      {outOfService && `${outOfService.replace(/[.]?$/, '.')} `}
      {(left.length > 0 || !(outOfService || outOfBand)) && describeLeft(left)}
      {outOfBand &&
        ` ${formatPlay(outOfBand.endPlayMm, reader.length)}, read on ${formatDate(outOfBand.at)}. No job since.`}
    </Line>
  ));
}
