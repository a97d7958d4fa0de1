import { expect, noAxeFindings, test } from "./fixtures";

interface Found {
  readonly horses: readonly { readonly id: string; readonly name: string }[];
}

const THEMES = ["desk", "field", "barn"] as const;

test("every view of knowing a horse has no axe finding, in turn in each theme, and fits 320 pixels", async ({ page, demo }) => {
  const { horses } = (await (await fetch(`${demo.url}/api/find`)).json()) as Found;
  const mare = horses.find(({ name }) => name === "Ostrevine")?.id ?? "";
  await page.goto(`${demo.url}/places`);
  const place = (await page.locator('a[href^="/places/"]').nth(1).getAttribute("href")) ?? "";
  const paths = [
    ...["", "/first-look", "/touch", "/places", "/connection", "/signs", "/limits"].map((part) => `/horses/${mare}/know${part}`),
    `/horses/${mare}/work`,
    "/places",
    "/places/new",
    place,
    "/kit",
    "/people",
  ];
  for (const [i, path] of paths.entries()) {
    for (const theme of path.endsWith("/know") ? THEMES : [THEMES[i % 3] ?? "desk"]) {
      await page.context().addCookies([{ name: "deft-theme", value: theme, url: demo.url }]);
      await page.setViewportSize({ width: 1280, height: 800 });
      await page.goto(`${demo.url}${path}`);
      await expect(page.locator("html")).toHaveAttribute("data-theme", theme);
      await noAxeFindings(page, `${path} ${theme}`);
    }
    await page.setViewportSize({ width: 320, height: 700 });
    await expect
      .poll(() => page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth), {
        message: `${path} at 320`,
      })
      .toBeLessThanOrEqual(0);
  }
});
