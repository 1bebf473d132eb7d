/** The cookies that an answer gives, as a browser sends them back. */
export const cookiesOf = ({ headers }: { headers: { getSetCookie: () => string[] } }): string =>
  headers
    .getSetCookie()
    .map((cookie) => cookie.split(';')[0]!)
    .join('; ');
