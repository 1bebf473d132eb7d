/** A moment as JSON says it in the contract, written by the database: UTC with milliseconds. @param column a timestamptz */
export const isoTime = (column: string) =>
  `to_char(${column} at time zone 'utc', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`;
