import type { Owner, UnitSummary, WheelEndSummary } from '@lanternwright/contract/fleet';
import { axleAt, positionsOf, type UnitKind } from '@lanternwright/core/axle-plan';
import type { Verdict } from '@lanternwright/core/end-play';

/** The newest believed readings of a unit's meters. */
export interface LatestMeter {
  km: number | null;
  /** Counted across odometers that were changed. */
  totalKm: number | null;
  hours: number | null;
  date: string | null;
}

const newest = (unit: string, total: string, columns: string) =>
  `(select ${columns} from meter_reading m where m.unit_id = ${unit} and m.${total} is not null
    order by m.date desc, m.nth desc limit 1)`;

/** SQL: a unit's `LatestMeter` as JSON. @param unit what names the unit */
export const latestMeter = (unit: string) => `(
  select json_build_object('km', k.km, 'totalKm', k.total_km, 'hours', h.hours, 'date', greatest(k.date, h.date))
  from (select 1) one
  left join lateral ${newest(unit, 'total_km', 'm.km, m.total_km, m.date')} k on true
  left join lateral ${newest(unit, 'total_hours', 'm.hours, m.date')} h on true)`;

/** What is known of a wheel end, as its row says it. */
export interface WheelEndStanding {
  axleId: string;
  position: string;
  verdict: Verdict | null;
  endPlayMm: number | null;
  readAt: Date | string | null;
  readKm: number | null;
  openJobId: string | null;
  outOfService: { reason: string } | null;
}

interface UnitHead {
  id: string;
  name: string;
  kind: UnitKind;
  plate: string;
  owner?: Owner;
}

type PlanAxle = UnitSummary['axles'][number];

function summariseWheelEnds(
  axles: readonly PlanAxle[],
  rows: readonly WheelEndStanding[],
): WheelEndSummary[] {
  return positionsOf(axles).map((position) => {
    const { id } = axleAt(axles, position)!;
    const row = rows.find((r) => r.axleId === id && r.position === position);
    return {
      position,
      state: row?.openJobId
        ? 'working'
        : row?.outOfService
          ? 'out-of-service'
          : ((row?.verdict === 'unsure' ? 'repeat' : row?.verdict) ?? 'not-measured'),
      endPlayMm: row?.endPlayMm ?? null,
      readAt: row?.readAt ? new Date(row.readAt).toISOString() : null,
      readKm: row?.readKm ?? null,
      outOfService: row?.outOfService?.reason ?? null,
    };
  });
}

/** A unit as lists show it. @param axles those under it now */
export function summarise(
  unit: UnitHead,
  axles: readonly PlanAxle[],
  wheelEnds: readonly WheelEndStanding[],
  meter: LatestMeter,
): UnitSummary {
  return {
    id: unit.id,
    owner: { id: unit.owner!.id, name: unit.owner!.name },
    name: unit.name,
    kind: unit.kind,
    plate: unit.plate,
    meterKm: meter.km,
    hours: meter.hours,
    meterDate: meter.date,
    axles: axles.map(({ id, number, role, wheels, brake }) => ({ id, number, role, wheels, brake })),
    wheelEnds: summariseWheelEnds(axles, wheelEnds),
    openJobId: wheelEnds.find((w) => w.openJobId)?.openJobId ?? null,
  };
}
