/**
 * What serving the local network needs: an authority that devices trust and a passcode of six words, made once and kept
 * in the data folder; a certificate that the authority signs for the addresses another device reaches this one at.
 */
import { createHash, randomBytes, randomInt, X509Certificate } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { hostname, networkInterfaces } from 'node:os';
import { join } from 'node:path';

const WORDS = 6;
const DAY = 86_400_000;
/** How long it lasts what a device trusts, and what is made anew from it, in milliseconds. */
const LASTS = { authority: 3_650 * DAY, certificate: 397 * DAY };
/** How long before its end another is made. */
const RENEWED = 30 * DAY;

/** Addresses of this machine in its networks, those of IPv4. */
function networkAddresses() {
  return Object.values(networkInterfaces())
    .flatMap((own) => own ?? [])
    .filter(({ family, internal }) => family === 'IPv4' && !internal)
    .map(({ address }) => address);
}

/** Names under which other devices of the network may know this one. */
function namesHere() {
  const name = hostname().toLowerCase();
  return [...new Set(['localhost', name, ...(name.includes('.') ? [] : [`${name}.local`])])];
}

/**
 * Whether a certificate lasts a while yet.
 * @param {string} pem
 * @param {(certificate: X509Certificate) => boolean} holds what else it must be
 */
function isGood(pem, holds) {
  try {
    const certificate = new X509Certificate(pem);
    return Date.parse(certificate.validTo) - Date.now() > RENEWED && holds(certificate);
  } catch {
    return false;
  }
}

/** What a device trusts once: it signs the certificates of this machine, whatever its address becomes. */
async function makeAuthority() {
  const { generate } = await import('selfsigned');
  return generate([{ name: 'commonName', value: 'Corvel on this network' }], {
    keyType: 'ec',
    algorithm: 'sha256',
    notAfterDate: new Date(Date.now() + LASTS.authority),
    extensions: [
      { name: 'basicConstraints', cA: true, pathLenConstraint: 0, critical: true },
      { name: 'keyUsage', digitalSignature: true, keyCertSign: true, critical: true },
    ],
  });
}

/**
 * The certificate of this machine under its names and addresses.
 * @param {{ readonly key: string, readonly cert: string }} authority
 * @param {readonly string[]} names
 * @param {readonly string[]} addresses
 */
async function makeCertificate(authority, names, addresses) {
  const { generate } = await import('selfsigned');
  return generate([{ name: 'commonName', value: 'Corvel' }], {
    keyType: 'ec',
    algorithm: 'sha256',
    ca: authority,
    notAfterDate: new Date(Date.now() + LASTS.certificate),
    extensions: [
      { name: 'basicConstraints', cA: false, critical: true },
      { name: 'keyUsage', digitalSignature: true, keyEncipherment: true, critical: true },
      { name: 'extKeyUsage', serverAuth: true },
      {
        name: 'subjectAltName',
        altNames: [
          ...names.map((value) => ({ type: /** @type {const} */ (2), value })),
          ...addresses.map((ip) => ({ type: /** @type {const} */ (7), ip })),
        ],
      },
    ],
  });
}

/** Six words of a list of 2,048: 66 bits, read out and typed without a slip. */
async function makePasscode() {
  const { wordlist } = await import('@scure/bip39/wordlists/english.js');
  return Array.from({ length: WORDS }, () => wordlist[randomInt(wordlist.length)]).join(' ');
}

/**
 * What is kept under `share` in the data folder, made where it is missing or no longer good.
 * @param {string} data
 */
export async function readyToShare(data) {
  const folder = join(data, 'share');
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  /** @param {string} name */
  const path = (name) => join(folder, name);
  /**
   * @param {string} name
   * @param {string} text
   */
  const keep = (name, text) => writeFileSync(path(name), text, { mode: 0o600 });
  /** @param {string} name */
  const kept = (name) => (existsSync(path(name)) ? readFileSync(path(name), 'utf8') : '');

  const addresses = networkAddresses();
  const names = namesHere();
  const covered = ['127.0.0.1', ...addresses];
  if (kept('authority-key.pem') === '' || !isGood(kept('authority.pem'), ({ ca }) => ca)) {
    const made = await makeAuthority();
    keep('authority-key.pem', made.private);
    keep('authority.pem', made.cert);
  }
  const authority = new X509Certificate(kept('authority.pem'));
  /** @param {X509Certificate} certificate */
  const isOurs = (certificate) =>
    certificate.checkIssued(authority) &&
    certificate.verify(authority.publicKey) &&
    names.every((name) => certificate.checkHost(name) !== undefined) &&
    covered.every((address) => certificate.checkIP(address) !== undefined);
  if (kept('key.pem') === '' || !isGood(kept('certificate.pem'), isOurs)) {
    const signer = { key: kept('authority-key.pem'), cert: kept('authority.pem') };
    const made = await makeCertificate(signer, names, covered);
    keep('key.pem', made.private);
    keep('certificate.pem', made.cert);
  }
  if (kept('passcode.txt').trim() === '') keep('passcode.txt', `${await makePasscode()}\n`);
  if (kept('signing.txt').trim() === '')
    keep('signing.txt', `${randomBytes(32).toString('base64url')}\n`);

  const fingerprint = createHash('sha256').update(authority.raw).digest('hex').toUpperCase();
  return {
    key: kept('key.pem'),
    // With the one that signed it, so that a browser shows both.
    certificates: `${kept('certificate.pem').trim()}\n${kept('authority.pem')}`,
    authority: kept('authority.pem'),
    fingerprint: fingerprint.match(/../gu)?.join(':') ?? '',
    signing: kept('signing.txt').trim(),
    passcode: process.env.CORVEL_PASSCODE || kept('passcode.txt').trim(),
    addresses,
  };
}
