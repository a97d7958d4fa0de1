"use client";

import { useRef } from "react";
import { saveFile } from "@/ui/chart/save";

/** Colours and fonts of the theme, which a drawing that stands alone has to bring along. */
function alone(svg: SVGSVGElement): string {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const style = getComputedStyle(document.documentElement);
  copy.setAttribute("xmlns", "http://www.w3.org/2000/svg");
  copy.removeAttribute("class");
  copy.setAttribute("style", `background:${style.getPropertyValue("--ground")};font-family:sans-serif`);
  const text = new XMLSerializer().serializeToString(copy);
  // A colour that is only sometimes set says itself what stands for it.
  return [1, 2].reduce(
    (now) =>
      now.replace(
        /var\((--[a-z-]+)(?:,\s*([^()]+))?\)/g,
        (_, name: string, other?: string) => style.getPropertyValue(name).trim() || (other ?? "").trim(),
      ),
    text,
  );
}

/** Saves the ribbon beside it as it is drawn, as an SVG. */
export function SaveRibbon({ name }: { name: string }) {
  const button = useRef<HTMLButtonElement>(null);
  const save = () => {
    const svg = button.current?.closest("[data-testid='session-ribbon']")?.querySelector<SVGSVGElement>("svg[role='img']");
    if (svg != null) saveFile(alone(svg), `${name}.svg`, "image/svg+xml");
  };
  return (
    <button ref={button} type="button" className="link text-sm" onClick={save}>
      Save the ribbon
    </button>
  );
}
