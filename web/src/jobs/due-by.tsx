import type { ShopFollowUp } from '@lanternwright/contract/jobs';
import { followUpKinds } from '@lanternwright/core/traveller';
import { formatDate, formatDistance, formatHours } from '../shell/words.ts';
import { useReader } from '../shell/use-reader.ts';

/** What each kind of follow-up is called. */
export const followUpWords: Record<ShopFollowUp['kind'], string> = {
  retorque: 'Retorque',
  'out-of-service': 'Out of service',
  ...followUpKinds,
};

/** By what distance or date a follow-up is due, and whether it is late. */
export function DueBy({ due }: { due: Pick<ShopFollowUp, 'byKm' | 'byHours' | 'byDate' | 'state'> }) {
  const reader = useReader();
  const late = due.state === 'overdue';
  if (due.byDate === null) return null;
  return (
    <span className={`text-right text-13 ${late ? 'font-semibold text-rust' : 'text-muted'}`}>
      {late ? 'overdue since ' : due.state === 'due' ? 'due now, by ' : 'by '}
      {due.byKm === null ? '' : `${formatDistance(due.byKm, reader)} or `}
      {due.byHours === null ? '' : `${formatHours(due.byHours)} or `}
      {formatDate(due.byDate)}
    </span>
  );
}
