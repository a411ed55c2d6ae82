/**
 * What serving the local network needs: a certificate of its own and a passcode of six words, made once and kept in
 * the data folder, and the addresses another device reaches this one at.
 */
import { createHash, randomBytes, randomInt, X509Certificate } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { hostname, networkInterfaces } from 'node:os';
import { join } from 'node:path';

const WORDS = 6;
/** Days a certificate lasts, and how long before its end another is made. */
const LASTS = 397;
const RENEWED = 30;
const DAY = 86_400_000;

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
 * Whether a certificate is good for these names and addresses for a while yet.
 * @param {string} pem
 * @param {readonly string[]} names
 * @param {readonly string[]} addresses
 */
function isGood(pem, names, addresses) {
  try {
    const certificate = new X509Certificate(pem);
    const left = Date.parse(certificate.validTo) - Date.now();
    return (
      left > RENEWED * DAY &&
      names.every((name) => certificate.checkHost(name) !== undefined) &&
      addresses.every((address) => certificate.checkIP(address) !== undefined)
    );
  } catch {
    return false;
  }
}

/**
 * @param {readonly string[]} names
 * @param {readonly string[]} addresses
 */
async function makeCertificate(names, addresses) {
  const { generate } = await import('selfsigned');
  return generate([{ name: 'commonName', value: 'Corvel on this network' }], {
    keyType: 'ec',
    notAfterDate: new Date(Date.now() + LASTS * DAY),
    extensions: [
      { name: 'basicConstraints', cA: true, critical: true },
      {
        name: 'keyUsage',
        ...{ digitalSignature: true, keyEncipherment: true, keyCertSign: true, critical: true },
      },
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
  if (kept('key.pem') === '' || !isGood(kept('certificate.pem'), names, covered)) {
    const made = await makeCertificate(names, covered);
    keep('key.pem', made.private);
    keep('certificate.pem', made.cert);
  }
  if (kept('passcode.txt').trim() === '') keep('passcode.txt', `${await makePasscode()}\n`);
  if (kept('signing.txt').trim() === '')
    keep('signing.txt', `${randomBytes(32).toString('base64url')}\n`);

  const certificate = kept('certificate.pem');
  const { raw } = new X509Certificate(certificate);
  const fingerprint = createHash('sha256').update(raw).digest('hex').toUpperCase();
  return {
    key: kept('key.pem'),
    certificate,
    fingerprint: fingerprint.match(/../gu)?.join(':') ?? '',
    signing: kept('signing.txt').trim(),
    passcode: process.env.CORVEL_PASSCODE || kept('passcode.txt').trim(),
    addresses,
  };
}
