/** SQL: what is due on a unit as JSON, without how it stands. @param unit what names the unit @param where what of it, a condition on d */
export const dueOfUnit = (unit: string, where = 'true') => `
  (select coalesce(json_agg(json_build_object('position', d.position, 'work', d.work, 'lastOn', d.last_on,
      'dueOn', d.due_on, 'earliest', d.earliest, 'latest', d.latest, 'dueBy', d.due_by, 'missing', d.missing, 'shortened', d.shortened)
      order by d.due_on nulls last, d.position, d.work), '[]')
    from due d where d.unit_id = ${unit} and ${where})`;
