import type { ComponentType } from 'react';
import type { Floor } from '@lanternwright/contract/plan';
import { mayRollInYard } from '@lanternwright/core/traveller';
import { describeLeft } from '../fleet/describe-left.ts';
import type { FloorLineProps } from './floor-side.tsx';

/** Wheel ends that are not whole and in no job: rare, so that the first screen does not carry them. */
export function ApartLines({ apart, Line }: { apart: Floor['apart']; Line: ComponentType<FloorLineProps> }) {
  return apart.map(({ unit, position, outOfService, left }) => (
    <Line
      key={`${unit.id}${position}`}
      to={`/fleet/${unit.id}?at=${position}`}
      act="Look"
      head={`${mayRollInYard(outOfService) ? 'Not for the road' : 'Not to roll'}: ${unit.name}, ${position}`}
    >
      {outOfService && `${outOfService.replace(/[.]?$/, '.')} `}
      {(left.length > 0 || !outOfService) && describeLeft(left)}
    </Line>
  ));
}
