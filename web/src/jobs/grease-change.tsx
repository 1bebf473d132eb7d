import { greaseChange, thickenerIn, thickeners } from '@lanternwright/core/lubricant';
import type { WheelEnd } from '@lanternwright/core/traveller';
import { formatDate } from '../shell/words.ts';
import { usePartsQuery } from '../stores/stores-api.ts';
import { Note } from '../ui/problem-note.tsx';
import type { OpenJob } from './use-job.ts';

type Grease = Parameters<typeof greaseChange>[0];

/** What it means that one grease follows another; nothing where they have one name. */
export function GreaseChange({ before, after }: { before: Grease; after: Grease }) {
  const change = greaseChange(before, after);
  if (!change) return null;
  const mild = change.agreement === 'same' || change.agreement === 'agree';
  return (
    <Note tone={mild ? 'plain' : 'trouble'}>
      <p className="font-semibold">{change.finding}</p>
      <p>{change.advice}</p>
      <p className="text-13">By a chart of thickeners kept from memory: the makers of both decide.</p>
    </Note>
  );
}

/** A grease with what thickens it: by its name, or as the store's own list has it. */
export function useGrease(name: string, skip: boolean): Grease {
  const told = thickenerIn(name);
  const { data } = usePartsQuery(
    { text: name, kind: 'lubricant' },
    { skip: skip || told !== null || name.trim() === '' },
  );
  const listed = data?.parts.find((p) => p.title.toLowerCase() === name.trim().toLowerCase());
  return { name, thickener: told ?? listed?.thickener ?? null };
}

/** What was in a hub before it is packed or filled, and whether what the sheet asks for takes it. */
export function GreaseBefore({ open, wheelEnd }: { open: OpenJob; wheelEnd: WheelEnd }) {
  const { position, sheet } = wheelEnd;
  const before = open.detail.lubricantBefore?.find((l) => l.position === position);
  const none = !before || sheet.lubricant.kind === 'oil';
  const old = useGrease(before?.name ?? '', none);
  const next = useGrease(sheet.lubricant.name, none);
  if (none) return null;
  return (
    <>
      <p className="text-14">
        In it since {formatDate(before.at)}: <b>{before.name}</b>
        {old.thickener && !thickenerIn(before.name) && `, ${thickeners[old.thickener]}`}
      </p>
      <GreaseChange before={old} after={next} />
    </>
  );
}
