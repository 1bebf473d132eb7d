/** SQL: an axle `a` as JSON: a `PlacedAxle`. */
export const PLACED_AXLE = `json_build_object('id', a.id, 'number', a.number, 'role', a.role, 'wheels', a.wheels,
  'brake', a.brake, 'sheet', a.sheet)`;

/** SQL: the axles that stand under a unit now, front to rear, as JSON. @param unit what names the unit */
export const placedAxles = (unit: string) => `
  (select coalesce(json_agg(${PLACED_AXLE} order by a.number), '[]')
    from axle a where a.unit_id = ${unit} and a.taken_out_at is null)`;
