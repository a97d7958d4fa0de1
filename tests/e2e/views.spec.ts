import type { Page } from "@playwright/test";
import { expect, noAxeFindings, test } from "./fixtures";

interface Found {
  readonly horses: readonly { readonly id: string; readonly name: string; readonly ladders: readonly { readonly id: string }[] }[];
}

const THEMES = ["desk", "field", "barn"] as const;

/** Looks at each view in one theme in turn, the main ones in all, and at 320 pixels. */
async function lookAt(page: Page, url: string, paths: readonly string[], inAll: readonly string[] = []) {
  for (const [i, path] of paths.entries()) {
    for (const theme of inAll.includes(path) ? THEMES : [THEMES[i % 3] ?? "desk"]) {
      await page.context().addCookies([{ name: "deft-theme", value: theme, url }]);
      await page.setViewportSize({ width: 1280, height: 800 });
      await page.goto(`${url}${path}`);
      await expect(page.locator("html")).toHaveAttribute("data-theme", theme);
      // The pen reads the device first; what it then shows has a heading, as every page has.
      await expect(page.locator("h1").first()).toBeAttached();
      await noAxeFindings(page, `${path} ${theme}`);
    }
    await page.setViewportSize({ width: 320, height: 700 });
    // A chart follows a new width a frame later.
    await expect
      .poll(() => page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth), {
        message: `${path} at 320`,
      })
      .toBeLessThanOrEqual(0);
  }
}

test("every view of the demo yard has no axe finding in any theme, and fits 320 pixels", async ({ page, demo }) => {
  const { horses } = (await (await fetch(`${demo.url}/api/find`)).json()) as Found;
  expect(horses).toHaveLength(8);
  const { id, ladders } = horses.find(({ name }) => name === "Quillomar") ?? { id: "", ladders: [] };
  await page.goto(`${demo.url}/horses/${id}/review`);
  const review = (await page.locator(`a[href^="/horses/${id}/review/"]`).first().getAttribute("href")) ?? "";
  const paths = [
    "/",
    "/settings",
    "/horses/new",
    `/horses/${id}/know`,
    `/horses/${id}/know/edit`,
    `/horses/${id}/shape/${ladders[0]?.id}`,
    `/horses/${id}/work`,
    `/horses/${id}/work/late`,
    "/remote",
    `/horses/${id}/review`,
    review,
    `/horses/${id}/ahead`,
    "/network",
    "/store",
    "/join",
    "/not-allowed",
    "/pen?horses=1",
    `/pen?horse=${id}`,
  ];
  await lookAt(page, demo.url, paths, [review]);
});

test("every view over weeks has no axe finding, in turn in each theme, and fits 320 pixels", async ({ page, demo }) => {
  const { horses } = (await (await fetch(`${demo.url}/api/find`)).json()) as Found;
  const { id, ladders } = horses.find(({ name }) => name === "Ostrevine") ?? { id: "", ladders: [] };
  const review = `/horses/${id}/review`;
  await lookAt(page, demo.url, [
    `${review}/weeks?span=91`,
    `${review}/weeks?by=asks`,
    `${review}/sides?span=365`,
    `${review}/compare?by=side&span=91`,
    `${review}/try-both`,
    `${review}/changes?ladder=${ladders[0]?.id}`,
    `${review}/moments`,
    `${review}/month`,
    `${review}/trials?of=side%3DL`,
    "/in-out",
  ]);
});

test("every view of shaping has no axe finding, in turn in each theme, and fits 320 pixels", async ({ page, demo }) => {
  const { horses } = (await (await fetch(`${demo.url}/api/find`)).json()) as Found;
  // The horse with two ladders is the one whose behaviours are chained.
  const { id, ladders } = horses.find((horse) => horse.ladders.length > 1) ?? { id: "", ladders: [] };
  await page.goto(`${demo.url}/horses/${id}/shape`);
  const chain = (await page.locator(`a[href^="/horses/${id}/shape/chains/"]`).first().getAttribute("href")) ?? "";
  const shape = `/horses/${id}/shape`;
  await lookAt(page, demo.url, [
    shape,
    ...ladders.map((ladder) => `${shape}/${ladder.id}`),
    ...ladders.map((ladder) => `${shape}/${ladder.id}/edit`),
    ...ladders.map((ladder) => `${shape}/${ladder.id}/versions`),
    `${shape}/${ladders[1]?.id}/card`,
    `${shape}/library`,
    `${shape}/library/load`,
    `${shape}/new?template=free-circle&method=marker-food`,
    `${shape}/chains/new`,
    chain,
  ]);
});

test("the demo is marked as sample data, found by the box, walked by keyboard, and removed in one step", async ({ page, demo }) => {
  await page.goto(demo.url);
  await expect(page.getByText("Sample data:")).toBeVisible();
  await page.keyboard.press("/");
  await page.getByPlaceholder("A horse, a page, a ladder").fill("sorrelay");
  await page.getByRole("option", { name: /Sorrelay Fen horse/ }).click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Sorrelay Fen");
  await page.getByRole("button", { name: "Theme" }).click();
  await page.getByRole("menuitemradio", { name: /Field/ }).click();
  await expect(page.locator("html")).toHaveAttribute("data-theme", "field");
  await page.reload();
  await expect(page.locator("html")).toHaveAttribute("data-theme", "field");
  await page.goto(`${demo.url}/settings`);
  await page.getByRole("button", { name: "Take out the sample data" }).click();
  await page.getByRole("button", { name: "Take out", exact: true }).click();
  await expect(page.getByText("The sample data is taken out.")).toBeVisible();
  await page.goto(demo.url);
  await expect(page.getByText("The yard is empty.")).toBeVisible();
});
