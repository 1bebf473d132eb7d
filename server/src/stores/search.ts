import {
  compareByMeasure,
  numberDistance,
  plainNumber,
  readNumber,
  type OldPart,
  type Part,
} from '@lanternwright/core/part';
import {
  PARTS_A_PAGE,
  type Found,
  type MeasuredPart,
  type MeasuredQuery,
  type PartLine,
  type PartsPage,
} from '@lanternwright/contract/stores';
import type { Database } from '../database/connect.ts';
import { prepared } from '../database/prepared.ts';
import { patternsOf } from '../fleet/find-words.ts';

/** SQL: what lists show of a part p. */
export const PART_LINE = `
  p.id, p.kind, p.title, p.part ->> 'number' as number, p.on_hand as "onHand", p.reserved,
  (p.part ->> 'reorderLevel') ::int as "reorderLevel", p.part ->> 'thickener' as thickener,
  (select coalesce(json_agg(json_build_object('place', s.of, 'quantity', s.quantity) order by s.of), '[]')
    from stock s where s.part_id = p.id and s.what = 'place') as places,
  (select json_build_object('id', n.id, 'number', n.part ->> 'number') from part n
    where n.id = (p.part ->> 'supersededBy') ::uuid) as "supersededBy"`;

/** SQL: numbers that have the signs that were read ($2); $1 is what was read, plain. */
export const NUMBERS = `
  select part_id as id, number, plain, own, plain = $1 as same, true as like
  from part_number where plain like $2 order by plain = $1 desc limit 200`;

/** SQL: numbers that share three signs in a row with what was read ($1) often enough; they are judged by how far they are. */
export const NEAR_NUMBERS = `
  select part_id as id, number, plain, own, false as same, false as like
  from part_number where plain operator(trigrams.%) $1 order by trigrams.similarity(plain, $1) desc limit 60`;

export const LINES = `select ${PART_LINE} from part p where p.id = any($1 ::uuid[])`;

/** SQL: parts of a kind ($1, null: any) in whose title every word stands, by title. @param words how many */
const listedSql = (words: number) => `
  select ${PART_LINE} from part p
  where ($1 ::text is null or p.kind = $1) ${Array.from({ length: words }, (_, i) => `and p.title ilike $${i + 4}`).join(' ')}
  order by p.title, p.id limit $2 offset $3`;

/** Signs that may be wrong in a number for it to be shown: one in four. */
const mostWrong = (read: number) => Math.max(1, Math.floor(read / 4));
/** Fewer signs than these fit too many numbers to be worth a guess. */
const LEAST_NEAR = 4;

interface NumberRow {
  id: string;
  number: string;
  plain: string;
  own: boolean;
  same: boolean;
  like: boolean;
}

const ranks: readonly Found['how'][] = ['same', 'crossing', 'like', 'near', 'title', 'listed'];

function foundBy({ number, plain, own, same, like }: NumberRow, read: string, hasGaps: boolean): Found {
  const distance = hasGaps ? 0 : numberDistance(read, plain);
  return { how: same ? (own ? 'same' : 'crossing') : like ? 'like' : 'near', number, distance };
}

/** How far round a measured size parts are looked at, mm: near ones are shown with what can be done. */
const ROUND_MM = { bore: 6, outside: 6, width: 12 };

const round = (of: 'bore' | 'outside' | 'width', at: string) =>
  `p.${of}_mm between ${at} - ${ROUND_MM[of]} and ${at} + ${ROUND_MM[of]}`;

/**
 * SQL: parts of a kind ($1, null: any) that lie round what was measured, bore $2, outside $3, width $4, each null where it
 * was not; one measure that the list does not have of a part leaves it in. The nearest 60.
 */
export const BY_MEASURE = `
  select ${PART_LINE}, p.part -> 'dims' as dims, p.part -> 'lips' as lips from part p
  where ($1 ::text is null or p.kind = $1)
    and (${round('bore', '$2 ::float8')} or ${round('outside', '$3 ::float8')}
      or ($2 is null and $3 is null and ${round('width', '$4 ::float8')}))
    and coalesce(${round('bore', '$2')}, true) and coalesce(${round('outside', '$3')}, true)
    and coalesce(${round('width', '$4')}, true)
  order by coalesce(abs(p.bore_mm - $2), 0) + coalesce(abs(p.outside_mm - $3), 0) + coalesce(abs(p.width_mm - $4), 0), p.id
  limit 60`;

/** Parts shown of those that were measured. */
const MOST_MEASURED = 24;

/** Finds parts of the store. */
export function partSearch(db: Database) {
  async function listed(text: string, kind: string | null, page: number): Promise<PartsPage> {
    const words = patternsOf(text);
    const values = [kind, PARTS_A_PAGE + 1, (page - 1) * PARTS_A_PAGE, ...words];
    const rows = await prepared<PartLine>(
      db,
      `parts-listed-${words.length}`,
      listedSql(words.length),
      values,
    );
    const how = text === '' ? ('listed' as const) : ('title' as const);
    return {
      parts: rows
        .slice(0, PARTS_A_PAGE)
        .map((row) => ({ ...row, found: { how, number: row.number, distance: 0 } })),
      more: rows.length > PARTS_A_PAGE,
    };
  }

  async function byNumber(text: string, kind: string | null): Promise<PartsPage['parts']> {
    const { pattern, hasGaps, read } = readNumber(text);
    if (read < 2) return [];
    const plain = hasGaps ? pattern : plainNumber(text);
    // What was read may be the beginning of a number.
    const like = hasGaps ? pattern.replace(/\?/g, '_').replace(/\*/g, '%') : `${plain}%`;
    const exact = await prepared<NumberRow>(db, 'part-numbers', NUMBERS, [plain, like]);
    // A guess is made where nothing has the signs that were read.
    const guess = exact.length === 0 && !hasGaps && read >= LEAST_NEAR;
    const rows = guess ? await prepared<NumberRow>(db, 'near-numbers', NEAR_NUMBERS, [plain]) : exact;
    const best = new Map<string, Found>();
    for (const row of rows) {
      const found = foundBy(row, plain, hasGaps);
      if (found.how === 'near' && found.distance > mostWrong(read)) continue;
      const known = best.get(row.id);
      if (!known || rank(found) < rank(known)) best.set(row.id, found);
    }
    const nearest = [...best].sort(([, a], [, b]) => rank(a) - rank(b)).slice(0, PARTS_A_PAGE);
    const lines = await prepared<PartLine>(db, 'part-lines', LINES, [nearest.map(([id]) => id)]);
    const of = new Map(lines.map((line) => [line.id, line]));
    return nearest
      .map(([id, found]) => ({ ...of.get(id)!, found }))
      .filter((line) => kind === null || line.kind === kind);
  }

  return {
    /** By number first, then by words of their titles; all of a kind where nothing is asked. */
    async find(text: string, kind: string | null, page: number): Promise<PartsPage> {
      const isNumber = /[0-9?*]/.test(text);
      if (text === '' || !isNumber || page > 1) return listed(text, kind, page);
      const numbers = await byNumber(text, kind);
      return numbers.length > 0 ? { parts: numbers, more: false } : listed(text, kind, page);
    },

    async byMeasure({ kind, tolerance, lips, facing, ...dims }: MeasuredQuery): Promise<MeasuredPart[]> {
      const { bore, outside, width } = dims;
      if (bore === undefined && outside === undefined && width === undefined) return [];
      const old: OldPart = { dims, ...(lips && facing ? { lips: { count: lips, facing } } : {}) };
      const rows = await prepared<PartLine & Pick<Part, 'dims' | 'lips'>>(
        db,
        'parts-by-measure',
        BY_MEASURE,
        [kind ?? null, bore ?? null, outside ?? null, width ?? null],
      );
      return rows
        .map((row) => ({ ...row, fit: compareByMeasure(old, row, tolerance) }))
        .sort((a, b) => Number(b.fit.fits) - Number(a.fit.fits) || a.fit.far - b.fit.far)
        .slice(0, MOST_MEASURED);
    },
  };
}

const rank = ({ how, distance }: Found) => ranks.indexOf(how) * 100 + distance;
