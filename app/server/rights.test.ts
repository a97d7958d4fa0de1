import { readdirSync, readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { mayEnter, RIGHTS, routeOf } from "./rights";

const METHODS = /export (?:async )?(?:function|const) (GET|POST|PUT|DELETE|PATCH|HEAD|OPTIONS)\b/g;

/** Every route and page of the program, from its files: address as in the table, and its methods. */
function ofFiles(): Map<string, string[]> {
  const found = new Map<string, string[]>();
  for (const file of readdirSync("app", { recursive: true }).map(String)) {
    const [, folder] = /^(?:(.*)\/)?(?:page\.tsx|route\.ts)$/.exec(file) ?? [];
    if (!/(^|\/)(page\.tsx|route\.ts)$/.test(file)) continue;
    const path = `/${(folder ?? "")
      .split("/")
      .filter((step) => step !== "" && !/^\(.*\)$/.test(step))
      .join("/")}`;
    const methods = file.endsWith("page.tsx")
      ? ["GET"]
      : [...readFileSync(`app/${file}`, "utf8").matchAll(METHODS)].map(([, method]) => String(method));
    found.set(path, [...(found.get(path) ?? []), ...methods].sort());
  }
  // Two are answered before the framework.
  found.set("/api/events", ["POST"]);
  found.set("/api/sessions/[id]/live", ["GET"]);
  return found;
}

describe("the table of rights", () => {
  it("knows every route and page with its methods, and none that is not there", () => {
    const files = ofFiles();
    expect(files.size).toBeGreaterThan(60);
    const table = Object.fromEntries(Object.entries(RIGHTS).map(([path, methods]) => [path, Object.keys(methods).sort()]));
    expect(table).toEqual(Object.fromEntries(files));
  });

  it("lets nobody in who is not signed in, but to what holds no data", () => {
    const open = Object.entries(RIGHTS).flatMap(([path, methods]) =>
      Object.entries(methods).flatMap(([method, least]) => (least === "anyone" ? [`${method} ${path}`] : [])),
    );
    expect(open.sort()).toEqual(["GET /api/me", "GET /not-allowed", "GET /pen", "GET /sign-in", "POST /api/sign-in"]);
    expect(mayEnter(null, "GET", "/")).toBe("sign in");
    expect(mayEnter(null, "GET", "/_next/static/chunks/a-1.js")).toBe("in");
    expect(mayEnter(null, "POST", "/_next/static/chunks/a-1.js")).toBe("sign in");
    expect(mayEnter(null, "GET", "/_next/static/../../api/pack")).toBe("sign in");
    expect(mayEnter(null, "GET", "/icons/any-192.png")).toBe("in");
  });

  it("lets a helper log and read, and change nothing", () => {
    const changes = Object.entries(RIGHTS).flatMap(([path, methods]) =>
      Object.entries(methods).flatMap(([method, least]) => (least === "helper" && method !== "GET" ? [`${method} ${path}`] : [])),
    );
    expect(changes.sort()).toEqual([
      "POST /api/events",
      "POST /api/join",
      "POST /api/sessions",
      "POST /api/sessions/[id]/code",
      "POST /api/sign-out",
    ]);
    for (const path of ["/bin", "/store", "/network", "/horses/new"]) expect(mayEnter("helper", "GET", path)).toBe("refused");
    expect(mayEnter("helper", "PUT", "/api/people/p/access")).toBe("refused");
    expect(mayEnter("helper", "POST", "/api/store/restore")).toBe("refused");
  });

  it("lets a role nobody knows do nothing", () => {
    const unknown = "guest" as unknown as "helper";
    expect(mayEnter(unknown, "GET", "/horses/h/work")).toBe("sign in");
    expect(mayEnter(unknown, "POST", "/api/events")).toBe("sign in");
    expect(mayEnter(unknown, "PUT", "/api/settings/word")).toBe("sign in");
    expect(mayEnter(unknown, "GET", "/sign-in")).toBe("in");
  });

  it("keeps what nobody thought of for the owner", () => {
    for (const [method, path] of [
      ["GET", "/api/later"],
      ["PATCH", "/api/horses/h"],
      ["POST", "/"],
      ["GET", "/horses/h/work/s/more"],
    ] as const) {
      expect(mayEnter("helper", method, path)).toBe("refused");
      expect(mayEnter(null, method, path)).toBe("sign in");
      expect(mayEnter("owner", method, path)).toBe("in");
    }
  });

  it("reads an address as the framework does: a name before whatever stands for any", () => {
    expect(routeOf("/horses/h/shape/new")).toBe("/horses/[horse]/shape/new");
    expect(routeOf("/horses/h/shape/l")).toBe("/horses/[horse]/shape/[ladder]");
    expect(routeOf("/horses/h/work/late/")).toBe("/horses/[horse]/work/late");
    expect(routeOf("/horses//work")).toBeNull();
    expect(routeOf("/api/bin/what")).toBe("/api/bin/what");
  });
});
