import { useEffect, useState } from "react";
import { recordOf } from "@/core/typed";

const NAMES = ["ink", "soft", "hair", "paper", "tarn", "ochre", "plum", "sage", "brick"] as const;
export type Colours = Readonly<Record<(typeof NAMES)[number], string>>;

const readColours = (): Colours => {
  const style = getComputedStyle(document.documentElement);
  return recordOf(NAMES, (name) => style.getPropertyValue(`--${name}`).trim());
};

/** The colours of the present theme, for what is drawn on a canvas. */
export function useColours(): Colours {
  const [colours, setColours] = useState(readColours);
  useEffect(() => {
    const watch = new MutationObserver(() => setColours(readColours()));
    watch.observe(document.documentElement, { attributeFilter: ["data-theme"] });
    return () => watch.disconnect();
  }, []);
  return colours;
}
