import { QueryTypes } from 'sequelize';
import type { Database } from '../database/connect.ts';
import { grouped } from '../database/grouped.ts';
import type { Named } from './meter-csv.ts';

/** A plate as it is compared: however it is spaced. */
const plateKey = (plate: string) => plate.replace(/[\s-]+/g, '').toLowerCase();

const UNITS = `
  select u.id, lower(u.name) as name, lower(o.name) as owner,
    lower(regexp_replace(u.plate, '[\\s-]+', '', 'g')) as plate
  from unit u join owner o on o.id = u.owner_id
  where lower(u.name) = any($1 ::text[])
    or (u.plate <> '' and lower(regexp_replace(u.plate, '[\\s-]+', '', 'g')) = any($2 ::text[]))`;

interface Known {
  id: string;
  name: string;
  owner: string;
  plate: string;
}

function why({ unit, owner, plate }: Named, fits: readonly Known[]): string {
  const said = unit || plate;
  if (fits.length > 1) return `${fits.length} units are called ${said}: say whose in a column “owner”`;
  return owner ? `${owner} has no unit called ${said}` : `no unit is called ${said}`;
}

/** The units that these words mean, by name, owner and plate as far as they are said: each an id, or why none. */
export async function unitsByName(
  db: Database,
  named: readonly Named[],
): Promise<(string | { reason: string })[]> {
  const known = await db.sequelize.query<Known>(UNITS, {
    type: QueryTypes.SELECT,
    bind: [named.map((n) => n.unit.toLowerCase()), named.map((n) => plateKey(n.plate)).filter(Boolean)],
  });
  const byName = grouped(known, (u) => u.name);
  const byPlate = grouped(known, (u) => u.plate);
  return named.map((n) => {
    const [unit, owner, plate] = [n.unit.toLowerCase(), n.owner.toLowerCase(), plateKey(n.plate)];
    const candidates = unit === '' ? byPlate.get(plate) : byName.get(unit);
    const fits = (candidates ?? []).filter(
      (u) =>
        (owner === '' || u.owner === owner) &&
        (plate === '' || unit === '' || u.plate === plate || u.plate === ''),
    );
    return fits.length === 1 ? fits[0]!.id : { reason: why(n, fits) };
  });
}
