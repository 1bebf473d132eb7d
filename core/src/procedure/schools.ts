import { z } from 'zod';

/**
 * Where practitioners differ and the sheet says what this shop does. Each but the lock check is recorded
 * at its step, and a record that differs from the sheet needs a note.
 * @source common practice, no single source
 */
export const schools = {
  bearings: {
    title: 'Good-looking bearings',
    choices: { 'by-condition': 'Reused if clean and sound', renew: 'Renewed while it is apart' },
  },
  packing: {
    title: 'Bearings packed',
    choices: { either: 'By hand or packer', hand: 'By hand', packer: 'With a packer' },
  },
  sealOutside: {
    title: 'Outside of the seal',
    choices: { either: 'As the seal asks', dry: 'Dry', oiled: 'Lightly oiled' },
  },
  joint: {
    title: 'Hub cap joint',
    choices: { either: 'Gasket or sealant', gasket: 'Gasket', sealant: 'Sealant' },
  },
  lockCheck: {
    title: 'Lock checked by',
    choices: { 'who-locks': 'Whoever locks it', 'second-person': 'A second person' },
  },
} as const;
export type School = keyof typeof schools;
export const schoolNames = Object.keys(schools) as School[];

/** What a sheet asks for of each; where it says nothing, both ways are accepted. */
export const schoolsSchema = z.object({
  bearings: z.enum(['by-condition', 'renew']).default('by-condition'),
  packing: z.enum(['either', 'hand', 'packer']).default('either'),
  sealOutside: z.enum(['either', 'dry', 'oiled']).default('either'),
  joint: z.enum(['either', 'gasket', 'sealant']).default('either'),
  lockCheck: z.enum(['who-locks', 'second-person']).default('who-locks'),
});
export type Schools = z.output<typeof schoolsSchema>;

/** A sheet that leaves everything to whoever does the work. */
export const openSchools: Schools = schoolsSchema.parse({});

/** The words of what a sheet asks for. */
export function describeSchool(name: School, asked: Schools): string {
  return (schools[name].choices as Record<string, string>)[asked[name]] ?? asked[name];
}
