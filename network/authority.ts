import "reflect-metadata";
import { webcrypto } from "node:crypto";
import { chmodSync, existsSync, mkdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { AsnConvert } from "@peculiar/asn1-schema";
import { GeneralName, GeneralSubtree, GeneralSubtrees, NameConstraints } from "@peculiar/asn1-x509";
import * as x509 from "@peculiar/x509";
import { PRIVATE_RANGES } from "./addresses";

x509.cryptoProvider.set(webcrypto as Crypto);

const DAY_MS = 86_400_000;
/** So long the phone trusts the authority: a yard does not want to do this each year. */
const AUTHORITY_DAYS = 5 * 365;
/** A leaf is short-lived, so that one that was copied is soon worth nothing. */
const LEAF_DAYS = 21;
const RENEW_BEFORE_DAYS = 7;
/** Clocks of phones go wrong by hours. */
const BACKDATED_MS = DAY_MS;
const ALGORITHM = { name: "ECDSA", namedCurve: "P-256", hash: "SHA-256" } as const;
const NAME_CONSTRAINTS = "2.5.29.30";

/** A key and its certificate, as a server takes them. */
export interface Leaf {
  readonly key: string;
  readonly certificate: string;
  readonly names: readonly string[];
  readonly addresses: readonly string[];
  readonly untilMs: number;
}

/** The machine's own authority: its certificate for phones to trust, and its fingerprint to compare. */
export interface Authority {
  /** DER, as phones take it. */
  readonly certificate: Uint8Array;
  readonly pem: string;
  /** SHA-256, in pairs. */
  readonly fingerprint: string;
  readonly untilMs: number;
  readonly name: string;
}

interface Opened {
  readonly authority: Authority;
  readonly certificate: x509.X509Certificate;
  readonly key: CryptoKey;
}

const folderOf = (dataFolder: string) => join(dataFolder, "network");
const files = (dataFolder: string) => {
  const folder = folderOf(dataFolder);
  return { folder, key: join(folder, "authority.key"), certificate: join(folder, "authority.crt") };
};

/**
 * What the authority may vouch for (RFC 5280, 4.2.1.10): this machine's one
 * name and private addresses, and nothing else in the world.
 */
function constraintsFor(name: string): x509.Extension {
  const permitted = [
    new GeneralName({ dNSName: `${name}.local` }),
    ...PRIVATE_RANGES.map((range) => new GeneralName({ iPAddress: range })),
    // Kinds that are left out would be free: an address of mail, a site's address, no such thing exists here.
    new GeneralName({ rfc822Name: `${name}.local` }),
    new GeneralName({ uniformResourceIdentifier: `${name}.local` }),
  ].map((base) => new GeneralSubtree({ base }));
  const value = AsnConvert.serialize(new NameConstraints({ permittedSubtrees: new GeneralSubtrees(permitted) }));
  return new x509.Extension(NAME_CONSTRAINTS, true, value);
}

const serial = () =>
  Buffer.from(webcrypto.getRandomValues(new Uint8Array(16)))
    .toString("hex")
    .replace(/^[89a-f]/, "7");

const pemOf = (label: string, bytes: ArrayBuffer) =>
  `-----BEGIN ${label}-----\n${Buffer.from(bytes)
    .toString("base64")
    .replace(/(.{64})/g, "$1\n")
    .trimEnd()}\n-----END ${label}-----\n`;

/** Writes a file that its owner alone may read; cut off, it leaves nothing under the name. */
function writePrivately(file: string, text: string): void {
  const part = `${file}.part`;
  writeFileSync(part, text, { mode: 0o600 });
  chmodSync(part, 0o600);
  renameSync(part, file);
}

async function authorityOf(certificate: x509.X509Certificate, name: string): Promise<Authority> {
  const print = Buffer.from(await certificate.getThumbprint("SHA-256"))
    .toString("hex")
    .toUpperCase();
  return {
    certificate: new Uint8Array(certificate.rawData),
    pem: certificate.toString("pem"),
    fingerprint: (print.match(/../g) ?? []).join(" "),
    untilMs: certificate.notAfter.getTime(),
    name,
  };
}

async function makeAuthority(dataFolder: string, name: string, nowMs: number): Promise<Opened> {
  const { folder, key: keyFile, certificate: certificateFile } = files(dataFolder);
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  chmodSync(folder, 0o700);
  const keys = await webcrypto.subtle.generateKey(ALGORITHM, true, ["sign", "verify"]);
  const certificate = await x509.X509CertificateGenerator.createSelfSigned({
    serialNumber: serial(),
    name: `CN=Deft Tether on ${name}`,
    notBefore: new Date(nowMs - BACKDATED_MS),
    notAfter: new Date(nowMs + AUTHORITY_DAYS * DAY_MS),
    signingAlgorithm: ALGORITHM,
    keys: keys as CryptoKeyPair,
    extensions: [
      new x509.BasicConstraintsExtension(true, 0, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.keyCertSign, true),
      new x509.ExtendedKeyUsageExtension([x509.ExtendedKeyUsage.serverAuth]),
      constraintsFor(name),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey as CryptoKey),
    ],
  });
  writePrivately(keyFile, pemOf("PRIVATE KEY", await webcrypto.subtle.exportKey("pkcs8", keys.privateKey)));
  writePrivately(certificateFile, certificate.toString("pem"));
  return { authority: await authorityOf(certificate, name), certificate, key: keys.privateKey as CryptoKey };
}

/**
 * The authority of a data folder, made where there is none, where its time is
 * up, or where it is of another name. Its key never leaves the folder.
 */
async function openAuthority(dataFolder: string, name: string, nowMs: number): Promise<Opened> {
  const { key: keyFile, certificate: certificateFile } = files(dataFolder);
  if (!existsSync(keyFile) || !existsSync(certificateFile)) return makeAuthority(dataFolder, name, nowMs);
  // A key others could have read is no secret any more.
  if (process.platform !== "win32" && (statSync(keyFile).mode & 0o077) !== 0) return makeAuthority(dataFolder, name, nowMs);
  const certificate = new x509.X509Certificate(readFileSync(certificateFile, "utf8"));
  if (certificate.subject !== `CN=Deft Tether on ${name}` || certificate.notAfter.getTime() < nowMs + LEAF_DAYS * DAY_MS)
    return makeAuthority(dataFolder, name, nowMs);
  const bytes = Buffer.from(readFileSync(keyFile, "utf8").replace(/-----[^-]+-----|\s/g, ""), "base64");
  const key = await webcrypto.subtle.importKey("pkcs8", bytes, ALGORITHM, false, ["sign"]);
  return { authority: await authorityOf(certificate, name), certificate, key: key as CryptoKey };
}

/** Whether a data folder has an authority. */
export const hasAuthority = (dataFolder: string): boolean => existsSync(files(dataFolder).key);

/** Takes the authority back: its key is gone, and with it everything it could vouch for. @returns whether there was one. */
export function forgetAuthority(dataFolder: string): boolean {
  const there = existsSync(folderOf(dataFolder));
  rmSync(folderOf(dataFolder), { recursive: true, force: true });
  return there;
}

/** Vouches for names and addresses of this machine. */
export class Certifier {
  private constructor(private readonly opened: Opened) {}

  static async open(dataFolder: string, name: string, nowMs: number): Promise<Certifier> {
    return new Certifier(await openAuthority(dataFolder, name, nowMs));
  }

  get authority(): Authority {
    return this.opened.authority;
  }

  /** A new key with a certificate for these names and addresses; its key is in memory alone. */
  async leaf(names: readonly string[], addresses: readonly string[], nowMs: number): Promise<Leaf> {
    const keys = await webcrypto.subtle.generateKey(ALGORITHM, true, ["sign", "verify"]);
    const { certificate: issuer, key, authority } = this.opened;
    const untilMs = Math.min(nowMs + LEAF_DAYS * DAY_MS, authority.untilMs);
    const certificate = await x509.X509CertificateGenerator.create({
      serialNumber: serial(),
      subject: `CN=${names[0] ?? addresses[0] ?? "nothing"}`,
      issuer: issuer.subject,
      notBefore: new Date(nowMs - BACKDATED_MS),
      notAfter: new Date(untilMs),
      signingAlgorithm: ALGORITHM,
      publicKey: keys.publicKey as CryptoKey,
      signingKey: key,
      extensions: [
        new x509.BasicConstraintsExtension(false, undefined, true),
        new x509.KeyUsagesExtension(x509.KeyUsageFlags.digitalSignature, true),
        new x509.ExtendedKeyUsageExtension([x509.ExtendedKeyUsage.serverAuth]),
        new x509.SubjectAlternativeNameExtension([
          ...names.map((value) => ({ type: "dns" as const, value })),
          ...addresses.map((value) => ({ type: "ip" as const, value })),
        ]),
        await x509.AuthorityKeyIdentifierExtension.create(issuer),
        await x509.SubjectKeyIdentifierExtension.create(keys.publicKey as CryptoKey),
      ],
    });
    return {
      key: pemOf("PRIVATE KEY", await webcrypto.subtle.exportKey("pkcs8", keys.privateKey)),
      certificate: certificate.toString("pem"),
      names,
      addresses,
      untilMs,
    };
  }
}

/** Whether a leaf is to be made anew: its time is nearly up, or the machine has another address. */
export const leafIsStale = (leaf: Leaf, addresses: readonly string[], nowMs: number): boolean =>
  leaf.untilMs - nowMs < RENEW_BEFORE_DAYS * DAY_MS || addresses.join(" ") !== leaf.addresses.join(" ");
