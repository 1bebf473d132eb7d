import type { LayerId, Stack } from '../../stack/index.ts';

/**
 * A wheel end as hands have it: what is on, what holds it, in which order things were done. It hears of no record and
 * shares nothing with the program that judges one. Acts are called as the steps that record them.
 */
export class Metal {
  private readonly stack: Stack;
  /** Layers that are off or, for the nut, turned and not locked. */
  readonly off = new Set<LayerId>();
  /** When each thing that holds was done last; what is undone is not there. */
  readonly held = new Map<string, number>();
  /** Layers that were ever moved: only of these anything is asked. */
  readonly moved = new Set<LayerId>();
  private readonly cracked = new Set<string>();
  private clock = 0;
  private nutTurned = 0;
  private nutLoose = false;

  constructor(stack: Stack) {
    this.stack = stack;
  }

  private has(id: LayerId): boolean {
    return this.stack.some((l) => l.layer === id);
  }

  private layer<K extends LayerId>(id: K) {
    return this.stack.find((l) => l.layer === id) as Extract<Stack[number], { layer: K }> | undefined;
  }

  /** What hides a layer, as one looks at it from outside. */
  private hidden(id: LayerId): boolean {
    const outside: Partial<Record<LayerId, LayerId[]>> = {
      'brake-outer': ['wheel'],
      nut: ['cap'],
      hub: ['nut', 'brake-outer', 'wheel'],
      'brake-inner': ['hub'],
      'unit-hub': ['wheel', 'brake-outer'],
    };
    return (outside[id] ?? []).some((o) => this.has(o) && !this.off.has(o));
  }

  /** Caged, or apart, and not let go since. */
  private isCaged(): boolean {
    const wasHeld = this.cracked.has('uncaged') || this.moved.has('brake-outer');
    return this.layer('brake-outer')?.by === 'air' && wasHeld && !this.held.has('uncaged');
  }

  private let(...ids: string[]): void {
    for (const id of ids) this.held.delete(id);
  }

  /** Loosens what holds a layer that stays where it is. */
  private crack(...ids: string[]): boolean {
    this.let(...ids);
    for (const id of ids) this.cracked.add(id);
    return true;
  }

  private make(id: string): boolean {
    this.clock += 1;
    this.held.set(id, this.clock);
    return true;
  }

  private takeOff(id: LayerId, ...falls: string[]): boolean {
    if (this.off.has(id) || this.hidden(id)) return false;
    this.off.add(id);
    this.moved.add(id);
    this.let(...falls);
    return true;
  }

  private putOn(id: LayerId, act: string): boolean {
    if (!this.off.has(id) || this.hidden(id)) return false;
    this.off.delete(id);
    return this.make(act);
  }

  private turnNut(act: string): boolean {
    if (this.hidden('nut') || this.off.has('hub')) return false;
    this.off.delete('nut');
    this.moved.add('nut');
    this.nutLoose = true;
    this.let('lock', 'lock-looked-at');
    this.make(act);
    this.nutTurned = this.clock;
    return true;
  }

  /** Does an act with the hands. @returns whether hands can do it now */
  do(act: string): boolean {
    const inHub = ['pack', 'seal', 'cup-home', 'studs-home'];
    switch (act) {
      case 'wheel-cracked':
        if (this.off.has('wheel')) return false;
        return this.crack('wheel-nuts');
      case 'wheel-off':
        return this.takeOff(
          'wheel',
          'wheel-nuts',
          'wheel-drawn',
          'wheel-faces',
          'inflated',
          'wheel-nuts-road',
        );
      case 'wheel-faces':
        return this.off.has('wheel') && this.make(act);
      case 'wheel-drawn':
        return this.putOn('wheel', act);
      case 'wheel-nuts':
        return !this.off.has('wheel') && this.make(act);
      case 'caging':
        return this.crack('uncaged', 'brake-proved');
      case 'brake-off':
        return this.takeOff(
          'brake-outer',
          ...['brakes-back', 'bracket-bolts', 'caliper-bolts', 'drum-on', 'hose', 'adjuster', 'brake-proved'],
        );
      case 'brakes-back':
      case 'bracket-bolts':
        return (
          (this.off.has('brake-outer') || this.off.has('brake-inner')) &&
          !this.hidden('brake-outer') &&
          this.make(act)
        );
      case 'drum-on':
      case 'caliper-bolts':
        return this.putOn('brake-outer', act);
      case 'hose':
      case 'uncaged':
        return !this.off.has('brake-outer') && this.make(act);
      case 'adjuster':
        this.let('brake-proved');
        return !this.off.has('brake-outer') && this.make(act);
      case 'brake-proved':
        if (this.isCaged()) return false;
        return !this.off.has('brake-outer') && this.make(act);
      case 'cap-off':
        return this.takeOff('cap', 'fill', 'flange-nuts', 'cap-square', 'oil-level');
      case 'cap-cracked':
        if (this.off.has('cap')) return false;
        return this.crack('flange-nuts');
      case 'fill':
        return this.putOn('cap', act);
      case 'flange-nuts':
      case 'cap-square':
      case 'oil-level':
        return !this.off.has('cap') && this.make(act);
      case 'nut-off':
        if (this.off.has('nut') || this.hidden('nut')) return false;
        this.nutLoose = true;
        this.nutTurned = ++this.clock;
        this.let('lock', 'lock-looked-at');
        return this.takeOff('nut', 'lock', 'end-play');
      case 'nut-opened':
        if (this.off.has('nut') || this.hidden('nut')) return false;
        this.moved.add('nut');
        this.nutLoose = true;
        this.nutTurned = ++this.clock;
        this.let('lock', 'lock-looked-at');
        return true;
      case 'hub-off':
        if (!this.takeOff('hub', 'hub-on', ...inHub)) return false;
        this.nutTurned = ++this.clock;
        return true;
      case 'hub-on':
        if (this.off.has('hub')) this.let('end-play');
        return this.putOn('hub', act);
      case 'end-play':
        return !this.off.has('nut') && !this.hidden('nut') && !this.off.has('hub') && this.make(act);
      case 'lock':
        if (this.off.has('nut') || this.hidden('nut')) return false;
        this.nutLoose = false;
        this.let('lock-looked-at');
        return this.make(act);
      case 'lock-looked-at':
        return this.held.has('lock') && !this.hidden('nut') && this.make(act);
      default:
        if (inHub.includes(act)) return this.off.has('hub') && this.make(act);
        if (nutSteps.has(act)) return this.turnNut(act);
        return this.make(act);
    }
  }

  /** Does what cannot be done as it stands: whatever is in the way comes off first, as hands would. */
  force(act: string, layer: LayerId): void {
    if (this.do(act)) return;
    const takenOff: Partial<Record<LayerId, string>> = {
      ...{ wheel: 'wheel-off', cap: 'cap-off', 'brake-outer': 'brake-off', nut: 'nut-off', hub: 'hub-off' },
    };
    const inTheWay: Partial<Record<LayerId, LayerId[]>> = {
      hub: ['wheel', 'brake-outer', 'cap', 'nut'],
      nut: ['cap'],
      'brake-outer': ['wheel'],
    };
    const clear = (id: LayerId) => {
      for (const o of inTheWay[id] ?? []) if (this.has(o) && !this.off.has(o)) this.do(takenOff[o]!);
    };
    clear(layer);
    if (this.do(act)) return;
    if (takenOff[layer] && !this.off.has(layer)) this.do(takenOff[layer]);
    this.do(act);
  }

  /** What is not as it must be before it rolls: nothing, where it is whole. */
  wrong(): string[] {
    const is = (id: LayerId) => this.moved.has(id);
    const wants = (id: LayerId, ...acts: string[]) => (is(id) ? acts.filter((a) => !this.held.has(a)) : []);
    const brake = this.layer('brake-outer');
    const cap = this.layer('cap');
    const bolted = cap?.kind === 'flange' || cap?.kind === 'hub-lock';
    const oil = this.layer('hub')?.fill === 'oil';
    const after = (later: string, seq: number) =>
      (this.held.get(later) ?? 0) > seq ? [] : [`${later} after the nut moved`];
    const brakeMoved = is('brake-outer') && this.held.has('brakes-back');
    return [
      ...[...this.off].map((id) => `${id} off`),
      ...[...this.cracked].filter((id) => !this.held.has(id)),
      ...(this.nutLoose ? ['nut not locked'] : []),
      ...wants('wheel', 'wheel-nuts'),
      ...wants('cap', bolted ? 'flange-nuts' : 'cap-square', ...(oil ? ['oil-level'] : [])),
      ...(is('hub') ? wants('hub', 'pack', 'seal') : []),
      ...(is('nut') ? [...after('end-play', this.nutTurned), ...after('lock', this.nutTurned)] : []),
      ...(brake && brakeMoved ? wants('brake-outer', 'hose', 'brake-proved') : []),
      ...(brake?.by === 'air' && is('brake-outer') ? wants('brake-outer', 'uncaged', 'brake-proved') : []),
    ];
  }
}

/** Steps of Adjust that turn, hold or free the nut. */
const nutSteps = new Set([
  ...[
    'seat',
    'seat-2',
    'seat-3',
    'loosen',
    'set',
    'set-2',
    'set-3',
    'back-off',
    'washer',
    'jam-nut',
    'jam-off',
  ],
  ...['planned-turn', 'ring-in', 'ring-out', 'pin-out', 'to-slot', 'free', 'snug', 'home', 'finger-tight'],
  ...['new-nut', 'washer-slides', 'back-off-2'],
]);
