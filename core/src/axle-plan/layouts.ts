import { familySheet } from '../procedure/index.ts';
import type { Axle } from './axle-plan.ts';
import type { AxleRole, UnitKind } from './kinds.ts';

type Short = [AxleRole, Axle['wheels'], Axle['brake'], sheetId: string];

/** A common axle plan to start a unit from. */
export interface Layout {
  id: string;
  title: string;
  kinds: readonly UnitKind[];
  axles: readonly Axle[];
}

function layout(id: string, title: string, kinds: UnitKind[], ...axles: Short[]): Layout {
  return {
    id,
    title,
    kinds,
    axles: axles.map(([role, wheels, brake, sheetId]) => {
      const sheet = familySheet(sheetId);
      if (!sheet) throw new Error(`layout ${id}: no sheet ${sheetId}`);
      return { role, wheels, brake, sheet };
    }),
  };
}

const steer: Short = ['steer', 'single', 'drum', 'd-steer-18'];
const steerHeavy: Short = ['steer', 'single', 'drum', 'a-steer-double'];
const drive: Short = ['drive', 'dual', 'drum', 'a-drive-dowel'];
const driveTang: Short = ['drive', 'dual', 'drum', 'a-drive-tang'];
const trailer: Short = ['trailer', 'dual', 'drum', 'a-trailer'];
const towed: Short = ['trailer', 'single', 'drum', 'd-towed'];

/** Common plans, by what they are called in the yard. */
export const layouts: readonly Layout[] = [
  layout('tractor-2', 'Two axles, dual drive', ['tractor', 'rigid', 'bus', 'motorhome'], steer, drive),
  layout(
    'tractor-3',
    'Three axles, two dual drives',
    ['tractor', 'rigid', 'work-machine'],
    steer,
    driveTang,
    driveTang,
  ),
  layout(
    'rigid-4',
    'Four axles, two steers, two dual drives',
    ['rigid'],
    steerHeavy,
    steerHeavy,
    drive,
    drive,
  ),
  layout(
    'rigid-5',
    'Five axles, two steers, dual drives and a tag',
    ['rigid', 'work-machine'],
    steerHeavy,
    steerHeavy,
    drive,
    drive,
    ['fixed', 'single', 'drum', 'a-trailer'],
  ),
  layout('bus-2', 'Bus, two axles', ['bus'], ['steer', 'single', 'disc', 'd-steer-12'], driveTang),
  layout('motorhome-3', 'Motorhome with a tag axle', ['motorhome'], steer, drive, [
    'fixed',
    'single',
    'drum',
    'a-trailer',
  ]),
  layout(
    'van-2',
    'Van, unitised front hubs',
    ['van'],
    ['steer', 'single', 'disc', 'f-unitised'],
    ['drive', 'single', 'drum', 'g-c-clip'],
  ),
  layout('semi-2', 'Semi-trailer, two axles', ['semi-trailer'], trailer, trailer),
  layout(
    'semi-compact',
    'Semi-trailer, compact hubs',
    ['semi-trailer'],
    ['trailer', 'single', 'disc', 'f-compact'],
    ['trailer', 'single', 'disc', 'f-compact'],
  ),
  layout('semi-3', 'Semi-trailer, three axles', ['semi-trailer'], trailer, trailer, trailer),
  layout('towed-1', 'Caravan, one axle', ['caravan'], towed),
  layout('towed-rubber', 'Caravan, rubber axle', ['caravan'], ['trailer', 'single', 'drum', 'f-drum']),
  layout('towed-2', 'Caravan or flatbed, two axles', ['caravan', 'flatbed', 'implement'], towed, towed),
  layout(
    'farm-2',
    'Farm tractor',
    ['farm-tractor'],
    ['pivot', 'single', 'none', 'd-farm-front'],
    ['drive', 'single', 'drum', 'm-swaged-studs'],
  ),
  layout(
    'farm-driven',
    'Farm tractor, driven front',
    ['farm-tractor'],
    ['steer', 'single', 'none', 'n-planetary'],
    ['drive', 'single', 'drum', 'm-swaged-studs'],
  ),
  layout('implement-1', 'Implement, one axle', ['implement'], ['fixed', 'single', 'none', 'd-towed']),
  layout(
    'machine-2',
    'Wheeled machine, two axles',
    ['work-machine'],
    ['steer', 'single', 'disc', 'a-steer-double'],
    ['drive', 'single', 'disc', 'a-drive-dowel'],
  ),
  layout(
    'dumper-2',
    'Dumper or loader, hubs with reduction',
    ['work-machine'],
    ['steer', 'single', 'none', 'n-planetary'],
    ['drive', 'single', 'none', 'n-shims'],
  ),
  layout(
    'crawler-2',
    'Small crawler, sealed shafts',
    ['crawler'],
    ['drive', 'single', 'none', 'j-shaft-seal'],
    ['fixed', 'single', 'none', 'j-shaft-seal'],
  ),
];

/** Plans that suit a kind of unit, or all of them. */
export function layoutsFor(kind: UnitKind): readonly Layout[] {
  const fitting = layouts.filter((l) => l.kinds.includes(kind));
  return fitting.length > 0 ? fitting : layouts;
}
