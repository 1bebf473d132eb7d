import type { Floor } from '@lanternwright/contract/plan';
import { describeLeft } from '../fleet/describe-left.ts';
import { FloorLine } from './floor-line.tsx';

/** Wheel ends that are not whole and in no job: rare, so that the first screen does not carry them. */
export function ApartLines({ apart }: { apart: Floor['apart'] }) {
  return apart.map(({ unit, position, outOfService, left }) => (
    <FloorLine
      key={`${unit.id}${position}`}
      to={`/fleet/${unit.id}?at=${position}`}
      act="Look"
      head={`Not to roll: ${unit.name}, ${position}`}
    >
      {outOfService && `${outOfService.replace(/[.]?$/, '.')} `}
      {describeLeft(left)}
    </FloorLine>
  ));
}
