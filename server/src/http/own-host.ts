import { hostname, networkInterfaces } from 'node:os';
import { isIP } from 'node:net';
import type { RequestHandler } from 'express';
import { HttpProblem } from './problem.ts';

/** The name in a Host header, without its port. */
function nameIn(host: string): string {
  return URL.canParse(`http://${host}`) ? new URL(`http://${host}`).hostname.replace(/^\[|\]$/g, '') : '';
}

const ownIps = () =>
  new Set(Object.values(networkInterfaces()).flatMap((all) => (all ?? []).map((i) => i.address)));

/**
 * Answers only where it is called by one of the shop's own addresses: a foreign name that was pointed here would make
 * a browser take another site's page for ours.
 * @param shopAddress the address a proxy answers at, if there is one
 */
export function ownHostOnly(shopAddress: string | undefined): RequestHandler {
  const names = new Set(['localhost', hostname().toLowerCase()]);
  if (shopAddress) names.add(new URL(shopAddress).hostname);
  return (req, _res, next) => {
    const name = nameIn(req.get('host') ?? '');
    const own = names.has(name) || (isIP(name) !== 0 && (name.startsWith('127.') || ownIps().has(name)));
    if (!own)
      throw new HttpProblem(
        421,
        'Another address',
        'This is not one of the shop’s addresses: set SHOP_ADDRESS to it',
      );
    next();
  };
}
