import { Button } from './button.tsx';

/** Older and newer pages of a long list; nothing where one page holds it all. */
export function Pager({
  page,
  more,
  onPage,
}: {
  page: number;
  more: boolean;
  onPage: (page: number) => void;
}) {
  if (page === 1 && !more) return null;
  return (
    <nav aria-label="Pages" className="flex items-center gap-3 px-5 py-4">
      <Button disabled={page === 1} onClick={() => onPage(page - 1)}>
        Previous page
      </Button>
      <span className="figure text-14">{page}</span>
      <Button disabled={!more} onClick={() => onPage(page + 1)}>
        Next page
      </Button>
    </nav>
  );
}
