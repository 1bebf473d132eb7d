import type { PartLine } from '@lanternwright/contract/stores';
import { useLazyPartsQuery } from './stores-api.ts';

/** Looks up the parts whose own number, or another they are sold under, is the one that is typed or read. */
export function useExactParts() {
  const [look] = useLazyPartsQuery();
  return async (number: string, kind?: PartLine['kind']) => {
    const { data } = await look({ text: number.trim(), kind });
    return (data?.parts ?? []).filter((p) => p.found.how === 'same' || p.found.how === 'crossing');
  };
}
