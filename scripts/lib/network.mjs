import { networkInterfaces } from 'node:os';
import { Trouble } from './output.mjs';

/**
 * Who can open the shop, in words, and the settings for it.
 * @typedef {{ words: string, settings: Record<string, string> }} Door
 */

/** Addresses of this machine that others on its network can reach, IPv4. */
export function networkAddresses(interfaces = networkInterfaces()) {
  return Object.values(interfaces)
    .flatMap((all) => all ?? [])
    .filter(
      ({ family, internal, address }) => family === 'IPv4' && !internal && !address.startsWith('169.254.'),
    )
    .map(({ address }) => address);
}

/**
 * As it is without being asked: nobody else can open it.
 * @param {string | undefined} host as it is set, where it is
 * @returns {Door}
 */
export function thisMachineOnly(host) {
  if (host && !/^(127\.|localhost$|::1$)/.test(host))
    return { words: `It listens on ${host}, as HOST says.`, settings: {} };
  return {
    words: 'Only this machine can open it. Tablets of the workshop can after: npm start -- --network',
    settings: {},
  };
}

/**
 * Everybody on the network of this machine can open it; tags and mails carry its address there.
 * @param {number} port
 * @param {string | undefined} shopAddress as it is set, where a proxy or a name stands before it
 * @param {string[]} [addresses]
 * @returns {Door}
 */
export function openTo(port, shopAddress, addresses = networkAddresses()) {
  const [first] = addresses;
  if (!first)
    throw new Trouble(
      'This machine is on no network: join the workshop’s network, or start without --network.',
    );
  const all = addresses.map((address) => `http://${address}:${port}`);
  const printed = shopAddress ?? all[0] ?? '';
  return {
    words: [
      `Tablets open it at ${all.join(' or ')}; tags carry ${printed}.`,
      'Everybody on that network reaches its first page, and what is sent is not encrypted: keep to a network of your own,',
      'or put a proxy with a certificate before it (docs/operating.md).',
    ].join('\n'),
    settings: { HOST: '0.0.0.0', SHOP_ADDRESS: printed },
  };
}
