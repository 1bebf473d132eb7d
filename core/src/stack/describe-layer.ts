import { layerTitles } from './layer-id.ts';
import type { Layer } from './layer.ts';

const nutWords = {
  A: 'Two nuts, locking washer',
  B: 'One-piece nut, lock ring',
  C: 'Nut, bearing spacer',
  D: 'Castellated nut',
  E: 'Staked nut',
  H: 'Two round nuts, lock plate',
  N: 'Nut or retainer, bearings preloaded',
} as const;

const seatWords = { flange: 'flange nuts', ball: 'ball seats', cone: 'tapered seats' } as const;

/** A layer as it is built, in words: "Oil cap", "Two nuts, locking washer". */
export function describeLayer(layer: Layer): string {
  switch (layer.layer) {
    case 'wheel':
      return [
        { single: 'Wheel', dual: 'Wheels, dual', sprocket: 'Sprocket' }[layer.kind],
        layer.pilot === 'stud' ? ', stud-piloted' : '',
        layer.thread ? `, ${layer.thread}` : '',
        layer.class ? `, ${layer.class}` : '',
        layer.seat ? `, ${seatWords[layer.seat]}` : '',
        layer.centringNuts > 0 ? `, ${layer.centringNuts} centring nuts` : '',
        layer.leftHand ? ', left-hand thread on the left' : '',
      ].join('');
    case 'cap':
      return {
        'oil-cap': 'Oil cap',
        'grease-cap': 'Grease cap',
        flange: layer.cones ? 'Shaft flange, cone washers' : 'Shaft flange',
        'hub-lock': 'Hub lock',
        carrier: 'Cover, planet carrier and sun shaft',
      }[layer.kind];
    case 'brake-outer':
      return [
        layer.kind === 'disc' ? 'Brake, caliper and rotor' : 'Brake, drum and shoes',
        layer.chamberSize ? `, chamber ${layer.chamberSize}` : '',
        layer.chamberStroke && layer.chamberStroke !== 'standard' ? `, ${layer.chamberStroke} stroke` : '',
        layer.adjusting ? `, ${layer.adjusting} adjuster` : '',
      ].join('');
    case 'brake-inner':
      return layer.kind === 'electric' ? 'Brake, shoes and magnet' : 'Brake, shoes';
    case 'nut':
      if (layer.jammed) return 'Two nuts with a pin';
      return layer.kind === 'N' && layer.setBy === 'shims'
        ? 'Retainer and shims, bearings preloaded'
        : nutWords[layer.kind];
    case 'unit-hub':
      return {
        bolted: layerTitles['unit-hub'],
        compact: 'Compact hub, sealed for its life',
        drum: 'Drum and sealed bearing in one',
      }[layer.kind];
    case 'hub': {
      const carried = layer.carries === 'nothing' ? '' : ` with ${layer.carries}`;
      const more = [
        layer.studs === 'swaged' ? ', swaged studs' : '',
        layer.seal === 'face' ? ', face seal' : '',
      ];
      return `Hub${carried}, ${layer.fill}${more.join('')}`;
    }
    case 'spindle':
      return layer.kind === 'bolted' ? 'Spindle, bolted' : 'Stub axle with kingpin';
    case 'shaft':
      return layer.kind === 'c-clip' ? 'Shaft, C-clip' : 'Driven shaft';
    case 'axle':
      return 'Axle, shared with the other side';
    default:
      return layerTitles[layer.layer];
  }
}
