/** What is said for each code, from its parameters: ids, figures, dates. */
type Words = Readonly<Record<string, (params: never, names: never) => string>>;

/** The parameters of a code, as arguments: none where its words need none. */
export type ParamsOf<Table extends Words, Code extends keyof Table> = Table[Code] extends () => string
  ? []
  : [params: Parameters<Table[Code]>[0]];

/** Why something cannot be, without words of a language: a code of a table, and what it is about. */
export type Coded<Table extends Words> = {
  [Code in keyof Table & string]: {
    code: Code;
    params: ParamsOf<Table, Code>[0];
  };
}[keyof Table & string];

/** Makes one of a table's codes with its parameters. */
type Coder<Table extends Words> = <Code extends keyof Table & string>(
  code: Code,
  ...params: ParamsOf<Table, Code>
) => Coded<Table>;

/** What makes the codes of a table. */
export function coded<Table extends Words>(): Coder<Table> {
  return (code, ...[params]) => ({ code, params }) as Coded<Table>;
}
