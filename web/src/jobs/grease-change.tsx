import { greaseChange, thickenerIn, thickeners } from '@lanternwright/core/lubricant';
import type { WheelEnd } from '@lanternwright/core/traveller';
import { formatDate } from '../shell/words.ts';
import { useJobPartsQuery } from '../stores/stores-api.ts';
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

/** What was in a hub before it is packed or filled, and whether what the sheet asks for takes it. */
export function GreaseBefore({ open, wheelEnd }: { open: OpenJob; wheelEnd: WheelEnd }) {
  const { position, sheet } = wheelEnd;
  const before = open.detail.lubricantBefore?.find((l) => l.position === position);
  const { data: parts } = useJobPartsQuery(open.job.id, { skip: !before });
  if (!before || sheet.lubricant.kind === 'oil') return null;
  const listed = parts?.filter((l) => l.position === position && l.line === 'lubricant') ?? [];
  /** As the store's own list has it, where its name does not say. */
  const known = (name: string): Grease => ({
    name,
    thickener:
      listed.flatMap((l) => l.fitting).find((f) => f.title.toLowerCase() === name.trim().toLowerCase())
        ?.thickener ?? thickenerIn(name),
  });
  const { thickener } = known(before.name);
  return (
    <>
      <p className="text-14">
        In it since {formatDate(before.at)}: <b>{before.name}</b>
        {thickener && !thickenerIn(before.name) && `, ${thickeners[thickener]}`}
      </p>
      <GreaseChange before={known(before.name)} after={known(sheet.lubricant.name)} />
    </>
  );
}
