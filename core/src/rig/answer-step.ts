import { pushrodStroke } from '../brake/index.ts';
import { offered, type Step, type StepData, type TorqueFigure } from '../procedure/index.ts';
import { quantity, type Quantity } from '../quantity/index.ts';
import { measureWay, rollingFigure, verifyBy } from '../route/index.ts';
import { layerOf } from '../stack/index.ts';
import { whyNotTool, type Tool } from '../tool/index.ts';
import {
  brakeKindsOf,
  currentRound,
  linesToAnswer,
  partsPlanned,
  openParts,
  partsToJudge,
  type WheelEnd,
  renewedParts,
} from '../traveller/index.ts';
import { dispose, PLANNED } from '../inspection/index.ts';

/** What a simulated technician decides where a step leaves something open. */
export interface Technician {
  /** One of several, equally right. */
  pick: <T>(list: readonly T[]) => T;
  /** The wrench for a torque, N·m, as the shop's list has it. */
  wrench: (settingNm: number) => { tool: string; listed?: Tool };
  /** Lining thickness of a brake, mm. */
  liningMm: () => number;
  /** Hub temperature after the road, °C. */
  hubDegC: () => number;
}

const plainWrench = (n: number, minNm: number, maxNm: number): Tool => ({
  ...{ kind: 'torque-wrench', id: `7b0c2f5e-3d55-4c0e-9a41-6b1d0e7f2a0${n}`, code: `W-${n}` },
  ...{ title: `Torque wrench ${n}`, calibratedUntil: '2199-12-31' },
  ...{ min: quantity(minNm, 'Nm'), max: quantity(maxNm, 'Nm') },
});

/** Torque wrenches in calibration that reach from 5 to 2,000 N·m between them. */
export const plainWrenches: readonly Tool[] = [
  plainWrench(1, 5, 50),
  plainWrench(2, 30, 200),
  plainWrench(3, 100, 800),
  plainWrench(4, 500, 2000),
];

/** The first of a shop's wrenches that may be used for a torque, N·m; none of its list where none may. */
export function wrenchFor(
  tools: readonly Tool[],
  settingNm: number,
  today: string,
): { tool: string; listed?: Tool } {
  const listed = tools.find((t) => whyNotTool(t, { kind: 'torque-wrench', today, settingNm }) === null);
  return listed ? { tool: listed.code, listed } : { tool: 'Borrowed' };
}

/** A technician who always takes the first, with one of the plain wrenches. */
export const plainTechnician: Technician = {
  pick: (list) => list[0]!,
  wrench: (nm) => wrenchFor(plainWrenches, nm, '2026-01-01'),
  liningMm: () => 12,
  hubDegC: () => 42,
};

/** What a made-up maker's sheet asks for where the shop's has no figure. */
const MAKERS = quantity(60, 'lbf-ft');

function middleOf({ min, max }: TorqueFigure): Quantity {
  return min.si === max.si ? max : quantity(Math.round((min.value + max.value) / 2), max.unit);
}

/** How a measuring step of this wheel end is answered. */
export function measuredBy(w: WheelEnd, step: Step): 'dial' | 'feel' | 'drag' {
  if (step.id === 'swivel-preload') return 'drag';
  const by = verifyBy(w.plan.stack, w.sheet);
  return by === 'drag' ? 'drag' : w.sheet.band ? 'dial' : 'feel';
}

/** The pull of a preload, where one has to be measured. */
function pulled({ plan, sheet }: WheelEnd, step: Step): Partial<Extract<StepData, { kind: 'measure' }>> {
  const { mustPull, figure } = measureWay({ stack: plan.stack, sheet }, step);
  if (!mustPull) return {};
  if (figure) return { pull: quantity((figure.min.value + figure.max.value) / 2, figure.max.unit) };
  return { pull: quantity(30, 'N'), asked: { least: quantity(20, 'N'), most: quantity(40, 'N') } };
}

/** Every part sound; what the work renews is renewed as planned, what the sheet renews as it asks. */
export function soundFindings(w: WheelEnd): Extract<StepData, { kind: 'judge' }>['findings'] {
  const planned = partsPlanned(w);
  const pressure = { hardWorked: false, renewBearings: w.sheet.schools.bearings === 'renew' };
  return partsToJudge(w).map((component) => {
    const seen = planned.includes(component) ? PLANNED.id : 'sound';
    return { component, seen, disposition: dispose(component, seen, pressure)!.disposition };
  });
}

/**
 * What an honest technician records for a step: the sheet's figures reached, every part sound, nothing missing.
 * Readings of a dial are taken before their step is answered.
 */
export function answerStep(w: WheelEnd, step: Step, technician: Technician = plainTechnician): StepData {
  const { sheet } = w;
  const { pick } = technician;
  switch (step.kind) {
    case 'torque': {
      const figure = sheet[step.figure];
      const torque = figure ? middleOf(figure) : MAKERS;
      const used = technician.wrench(torque.si);
      return { kind: 'torque', torque, rounds: 1, ...used, ...(figure ? {} : { asked: MAKERS }) };
    }
    case 'turn': {
      const planned = currentRound(w).turns ?? 0;
      const turns =
        step.turns === 'planned' ? planned : step.turns === 'back-off' ? sheet.backOff!.turns : step.turns;
      return { kind: 'turn', turns };
    }
    case 'inspect':
      return { kind: 'inspect', ok: true };
    case 'joint':
      return { kind: 'joint', felt: 'nothing' };
    case 'ready':
      return { kind: 'ready', lines: linesToAnswer(w).map(({ what }) => ({ what, state: 'have' })) };
    case 'judge':
      return { kind: 'judge', hardWorked: false, findings: soundFindings(w) };
    case 'linings': {
      const lining = () => quantity(technician.liningMm(), 'mm');
      return {
        kind: 'linings',
        brake: brakeKindsOf(w)?.[0] ?? 'air-drum',
        inner: lining(),
        outer: lining(),
        set: true,
      };
    }
    case 'wear': {
      const [size, discard] = step.part === 'drum' ? [420, 424] : [38.5, 37];
      return { kind: 'wear', measured: [quantity(size!, 'mm')], discard: quantity(discard!, 'mm') };
    }
    case 'stroke': {
      const { chamberSize: chamber = 30, chamberStroke: stroke = 'standard' } =
        layerOf(w.plan.stack, 'brake-outer') ?? {};
      const { limitMm } = pushrodStroke({ chamber, stroke, measuredMm: 0 });
      const [released, applied] = [quantity(70, 'mm'), quantity(Math.round(70 + 0.8 * limitMm), 'mm')];
      return { kind: 'stroke', released, applied, chamber, stroke };
    }
    case 'heat': {
      const hub = () => quantity(technician.hubDegC(), 'degC');
      return { kind: 'heat', here: hub(), other: hub(), air: quantity(12, 'degC') };
    }
    case 'choose':
      return { kind: 'choose', option: pick(offered(step.options)).id };
    case 'lock':
      return { kind: 'lock', method: pick(step.methods).id };
    case 'fill':
      return {
        kind: 'fill',
        lubricant: sheet.lubricant.name,
        ...(step.joint
          ? { joint: sheet.schools.joint === 'sealant' ? ('sealant' as const) : ('gasket' as const) }
          : {}),
      };
    case 'found':
      return { kind: 'found', signs: [] };
    case 'compare':
      return { kind: 'compare', parts: openParts(w, 'compare').map((part) => ({ part, differs: [] })) };
    case 'seal':
      return { kind: 'seal', outside: sheet.schools.sealOutside === 'oiled' ? 'oiled' : 'dry' };
    case 'pack': {
      const { name, kind } = sheet.lubricant;
      const by = sheet.schools.packing === 'packer' ? 'packer' : 'hand';
      return { kind: 'pack', lubricant: name, by: kind === 'oil' ? 'oiled' : by };
    }
    case 'measure':
      return { kind: 'measure', by: measuredBy(w, step), ...pulled(w, step) };
    case 'dimension': {
      const asked = { least: quantity(0.1, 'mm'), most: quantity(0.3, 'mm') };
      return { kind: 'dimension', value: quantity(0.2, 'mm'), asked };
    }
    case 'rolling': {
      const [least, most] = [quantity(5, 'Nm'), quantity(8, 'Nm')];
      const bearings = renewedParts(w).has('cups-and-rollers') ? 'new' : 'run-in';
      const figure = rollingFigure(sheet, { bearings });
      const torque = figure ? middleOf(figure) : quantity(6.5, 'Nm');
      return { kind: 'rolling', bearings, torque, ...(figure ? {} : { asked: { least, most } }) };
    }
    case 'sensor':
      return { kind: 'sensor', set: 'to-stop', here: quantity(400, 'mV'), other: quantity(420, 'mV') };
    case 'shims': {
      const [current, play, chosen] = [quantity(1.5, 'mm'), quantity(0.3, 'mm'), quantity(1.15, 'mm')];
      const preload = { least: quantity(0.02, 'mm'), most: quantity(0.08, 'mm') };
      return { kind: 'shims', current, play, thicker: 'looser', preload, chosen };
    }
    case 'cure':
      return { kind: 'cure', hours: 1 };
    case 'instruct':
    case 'rotate':
      return { kind: step.kind };
  }
}
