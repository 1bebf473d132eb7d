/** SQL: how many of a stock movement `m` are in: what was used, less what was returned. */
export const NET_USED = `sum(case m.what when 'used' then m.quantity else -m.quantity end)`;
