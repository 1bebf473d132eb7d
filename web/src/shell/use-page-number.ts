import { useSearchParams } from 'react-router';

/** The page of a list that is shown, the first is 1; it stands in the address. */
export function usePageNumber(): [page: number, turnTo: (page: number) => void] {
  const [params, setParams] = useSearchParams();
  const page = Math.max(1, Math.trunc(Number(params.get('page'))) || 1);
  const turnTo = (next: number) => {
    const at = new URLSearchParams(window.location.search);
    if (next === 1) at.delete('page');
    else at.set('page', String(next));
    setParams(at, { replace: true });
    window.scrollTo(0, 0);
  };
  return [page, turnTo];
}
