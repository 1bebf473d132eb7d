import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, it } from 'vitest';

const root = fileURLToPath(new URL('../..', import.meta.url));

/** Texts that were edited once, and what a foreman says instead: `docs/words.md`. Those that a person reads, not comments. */
const notUsed: readonly [RegExp, string][] = [
  [/^[Ss]ay (why|who|whose|when|where|which|what|how|the|in|on|to|for|between|into) /, 'enter, choose'],
  [/^[Ss]ay (why|when|where|which)$/, 'enter a reason, the date …; choose one'],
  [
    /Nobody (works|knows|has (said|told)|releases|said|is named)/,
    'a noun: no technician, unknown, cannot be released',
  ],
  [/(Some|some)body or (some|no)thing/, 'name it: an absence'],
  [
    /No plan is better|Mend the plan|Bays by the hour|Page before/,
    'cannot be improved, Replan, Schedule, Previous page',
  ],
  [/^(Bring in|Take back|Put into|Put a unit in)/, 'Import, Delete, Assign'],
  [/[Nn]ot told|to be told as well|goes by this|clock goes by/, 'unknown, informed, uses'],
  [
    /It is built differently|Go deeper|stands? against the release/,
    'Different construction, Add work found, blocks the release',
  ],
];

/** Strings and texts of a file that a person may read: in quotes, or between tags. */
function textsIn(source: string): string[] {
  const code = source.replace(/\/\*[\s\S]*?\*\//g, '').replace(/(^|\s)\/\/.*$/gm, '');
  const quoted = [...code.matchAll(/(['"`])((?:(?!\1)[^\\\n]|\\.)*)\1/g)].map((m) => m[2]!);
  const between = [...code.matchAll(/>([^<>{}]*[a-z][^<>{}]*)</g)].map((m) =>
    m[1]!.replace(/\s+/g, ' ').trim(),
  );
  return [...quoted, ...between];
}

function* sourcesIn(folder: string): Generator<string> {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* entry.name === 'testing' ? [] : sourcesIn(path);
    else if (/\.tsx?$/.test(entry.name) && !/\.(test|load)\.tsx?$/.test(entry.name)) yield path;
  }
}

it('nothing that a person reads is said in words that were given up', () => {
  const found: string[] = [];
  let texts = 0;
  for (const workspace of ['core', 'contract', 'server', 'web'])
    for (const path of sourcesIn(join(root, workspace, 'src')))
      for (const text of textsIn(readFileSync(path, 'utf8'))) {
        texts += 1;
        for (const [words, instead] of notUsed)
          if (words.test(text)) found.push(`${path.slice(root.length)}: “${text}” (${instead})`);
      }
  expect(found).toEqual([]);
  expect(texts).toBeGreaterThan(5_000);
});

it('sees what stands in quotes and between tags, and no comment', () => {
  const source = `/** Say why. */ const a = 'Say why'; // 'Say when'\nreturn <p>Nobody knows when</p>;`;
  expect(textsIn(source)).toEqual(['Say why', 'Nobody knows when']);
});
