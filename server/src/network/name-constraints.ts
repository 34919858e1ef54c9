/**
 * What the studio's authority may speak for: this machine's own names, and addresses of networks that are nobody's on the internet. Whoever
 * takes its key can then deceive the devices that trust it about this machine alone, and not about a bank.
 * @see RFC 5280, 4.2.1.10; RFC 1918, 3927 and 4193 for the networks
 */
import { BlockList, isIP } from 'node:net';

import { AsnConvert } from '@peculiar/asn1-schema';
import {
  GeneralName,
  GeneralSubtree,
  GeneralSubtrees,
  id_ce_nameConstraints,
  NameConstraints,
} from '@peculiar/asn1-x509';
import * as x509 from '@peculiar/x509';

const PRIVATE = [
  '10.0.0.0/8',
  '127.0.0.0/8',
  '169.254.0.0/16',
  '172.16.0.0/12',
  '192.168.0.0/16',
  'fc00::/7',
  '::1/128',
];

/** Endings of names that no public authority gives out: a machine that is called otherwise there needs no new authority. */
const LOCAL = ['home.arpa', 'internal', 'lan', 'local'];

const family = (address: string): 'ipv4' | 'ipv6' => (isIP(address) === 6 ? 'ipv6' : 'ipv4');

function networkOf(ranges: readonly string[]): BlockList {
  const network = new BlockList();
  for (const range of ranges) {
    const [address = '', bits] = range.split('/');
    network.addSubnet(address, Number(bits ?? (isIP(address) === 6 ? 128 : 32)), family(address));
  }
  return network;
}

/** Names and addresses that an authority for these hosts speaks for: a public address is named one by one. */
function permittedFor(hosts: readonly string[]): { names: string[]; ranges: string[] } {
  const own = networkOf(PRIVATE);
  const names = [...LOCAL, ...hosts.filter((host) => isIP(host) === 0)];
  const open = hosts.filter((host) => isIP(host) > 0 && !own.check(host, family(host)));
  return { names, ranges: [...PRIVATE, ...open.map((host) => `${host}/${isIP(host) === 6 ? 128 : 32}`)] };
}

/** The extension of an authority for these hosts. */
export function constraintsFor(hosts: readonly string[]): x509.Extension {
  const { names, ranges } = permittedFor(hosts);
  const permitted = [
    ...names.map((dNSName) => new GeneralName({ dNSName })),
    ...ranges.map((iPAddress) => new GeneralName({ iPAddress })),
  ].map((base) => new GeneralSubtree({ base }));
  const constraints = new NameConstraints({ permittedSubtrees: new GeneralSubtrees(permitted) });
  return new x509.Extension(id_ce_nameConstraints, true, AsnConvert.serialize(constraints));
}

/** Whether an authority speaks for all of these hosts; one of an earlier version speaks for any, and devices trust it already. */
export function speaksFor(root: x509.X509Certificate, hosts: readonly string[]): boolean {
  const extension = root.getExtension(id_ce_nameConstraints);
  if (!extension) return true;
  const permitted = AsnConvert.parse(extension.value, NameConstraints).permittedSubtrees ?? [];
  const names = permitted.flatMap(({ base }) => base.dNSName ?? []);
  const isNamed = (host: string) => names.some((name) => host === name || host.endsWith(`.${name}`));
  const network = networkOf(permitted.flatMap(({ base }) => base.iPAddress ?? []));
  return hosts.every((host) => (isIP(host) > 0 ? network.check(host, family(host)) : isNamed(host)));
}
