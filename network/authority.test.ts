import { spawnSync } from "node:child_process";
import { chmodSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { isPrivate, ownName } from "./addresses";
import { Certifier, forgetAuthority, hasAuthority, leafIsStale } from "./authority";

const NOW = Date.now();
const DAY = 86_400_000;

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "authority-"));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

/** What OpenSSL says of a certificate under an authority: a judge that is not ours. */
function openssl(pem: string, authority: string, ...more: string[]): string {
  writeFileSync(join(folder, "leaf.pem"), pem);
  writeFileSync(join(folder, "ca.pem"), authority);
  const run = spawnSync(
    "openssl",
    ["verify", "-x509_strict", "-purpose", "sslserver", "-CAfile", join(folder, "ca.pem"), ...more, join(folder, "leaf.pem")],
    {
      encoding: "utf8",
    },
  );
  return `${run.stdout}${run.stderr}`;
}

describe("the machine's own authority", () => {
  it("vouches for its own name and private addresses, as OpenSSL sees it", async () => {
    const certifier = await Certifier.open(folder, "deft-75bd", NOW);
    const leaf = await certifier.leaf(["deft-75bd.local"], ["192.168.1.7", "10.3.4.5", "172.20.0.1"], NOW);
    const { pem } = certifier.authority;
    expect(openssl(leaf.certificate, pem, "-verify_hostname", "deft-75bd.local")).toContain(": OK");
    expect(openssl(leaf.certificate, pem, "-verify_ip", "192.168.1.7")).toContain(": OK");
    expect(openssl(leaf.certificate, pem, "-verify_hostname", "other.local")).toMatch(/[Hh]ost ?name mismatch/);
  });

  it.each([
    [["bank.example"], []],
    [["deft-75bd.local", "bank.example"], []],
    [["local"], []],
    [["other.local"], []],
    [[], ["8.8.8.8"]],
    [["deft-75bd.local"], ["172.32.0.1"]],
    [[], ["192.167.1.1"]],
  ])("cannot vouch for %j %j: OpenSSL refuses what it signs", async (names, addresses) => {
    const certifier = await Certifier.open(folder, "deft-75bd", NOW);
    const leaf = await certifier.leaf(names, addresses, NOW);
    expect(openssl(leaf.certificate, certifier.authority.pem)).toContain("permitted subtree violation");
  });

  it("cannot make another authority", async () => {
    const certifier = await Certifier.open(folder, "deft-75bd", NOW);
    writeFileSync(join(folder, "ca.pem"), certifier.authority.pem);
    const text = spawnSync("openssl", ["x509", "-noout", "-text", "-in", join(folder, "ca.pem")], { encoding: "utf8" }).stdout;
    expect(text).toMatch(/CA:TRUE, pathlen:0/);
    expect(text).toMatch(/Name Constraints: critical/);
    expect(text).toMatch(/TLS Web Server Authentication/);
  });

  it("stays the same from start to start, its key readable by its owner alone", async () => {
    const first = await Certifier.open(folder, "deft-75bd", NOW);
    const again = await Certifier.open(folder, "deft-75bd", NOW + 30 * DAY);
    expect(again.authority.fingerprint).toBe(first.authority.fingerprint);
    const key = join(folder, "network", "authority.key");
    expect(statSync(key).mode & 0o777).toBe(0o600);
    expect(statSync(join(folder, "network")).mode & 0o777).toBe(0o700);
    expect(readFileSync(key, "utf8")).toContain("PRIVATE KEY");
    // What it signs after it was read from the disk holds as well.
    const leaf = await again.leaf(["deft-75bd.local"], [], NOW);
    expect(openssl(leaf.certificate, first.authority.pem)).toContain(": OK");
  });

  it("is made anew where others could read its key, where it is of another name, and near its end", async () => {
    const first = (await Certifier.open(folder, "deft-75bd", NOW)).authority.fingerprint;
    chmodSync(join(folder, "network", "authority.key"), 0o644);
    const second = (await Certifier.open(folder, "deft-75bd", NOW)).authority.fingerprint;
    const third = (await Certifier.open(folder, "deft-0000", NOW)).authority.fingerprint;
    const fourth = (await Certifier.open(folder, "deft-0000", NOW + 5 * 365 * DAY)).authority.fingerprint;
    expect(new Set([first, second, third, fourth]).size).toBe(4);
  });

  it("is taken back whole", async () => {
    await Certifier.open(folder, "deft-75bd", NOW);
    expect(hasAuthority(folder)).toBe(true);
    expect(forgetAuthority(folder)).toBe(true);
    expect(hasAuthority(folder)).toBe(false);
    expect(forgetAuthority(folder)).toBe(false);
  });

  it("renews a leaf near its end and when the address changes", async () => {
    const certifier = await Certifier.open(folder, "deft-75bd", NOW);
    const leaf = await certifier.leaf(["deft-75bd.local"], ["192.168.1.7"], NOW);
    expect((leaf.untilMs - NOW) / DAY).toBe(21);
    expect(leafIsStale(leaf, ["192.168.1.7"], NOW + 13 * DAY)).toBe(false);
    expect(leafIsStale(leaf, ["192.168.1.7"], NOW + 15 * DAY)).toBe(true);
    expect(leafIsStale(leaf, ["192.168.1.8"], NOW)).toBe(true);
  });
});

describe("addresses", () => {
  // RFC 1918, section 3; RFC 3927, section 2.1.
  it.each([
    ["10.0.0.1", true],
    ["172.15.255.255", false],
    ["172.16.0.0", true],
    ["172.31.255.255", true],
    ["172.32.0.0", false],
    ["192.168.255.1", true],
    ["192.169.0.1", false],
    ["169.254.9.9", true],
    ["8.8.8.8", false],
    ["10.0.0", false],
    ["10.0.0.256", false],
    ["10.0.0.x", false],
  ])("%s is private: %s", (address, is) => expect(isPrivate(address)).toBe(is));

  it("have a name that follows the store", () => expect(ownName("75bd0c11-df50-4fc3-b7bf-54aaf0f1e7ad")).toBe("deft-75bd"));
});
