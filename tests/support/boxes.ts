import type { Page } from "@playwright/test";

/** What is wrong with how a page lies on the screen: what is cut off, what covers what, what is too small. */
export function boxFaults(page: Page, wanted: Readonly<Record<string, string>>, leastPad: number): Promise<string[]> {
  return page.evaluate(
    ({ wanted, leastPad }) => {
      const faults: string[] = [];
      const boxes: { name: string; element: Element; box: DOMRect }[] = [];
      const add = (name: string, element: Element) => {
        const box = element.getBoundingClientRect();
        if (box.width > 0 && box.height > 0) boxes.push({ name, element, box });
        return box;
      };
      for (const [name, selector] of Object.entries(wanted)) {
        const element = [...document.querySelectorAll(selector)].find((one) => one.getClientRects().length > 0);
        if (element === undefined) faults.push(`${name} is not there`);
        else add(name, element);
      }
      for (const element of document.querySelectorAll("[data-pad]")) {
        if (element.getClientRects().length === 0) continue;
        const name = `pad ${element.textContent}`;
        const box = add(name, element);
        if (box.height < leastPad - 0.5 || box.width < 44) faults.push(`${name} is ${Math.round(box.width)}×${Math.round(box.height)}`);
      }
      /** The part of an element that its clipping ancestors leave in sight. */
      const seen = (element: Element, box: DOMRect) => {
        let [left, top, right, bottom] = [box.left, box.top, box.right, box.bottom];
        for (let up = element.parentElement; up !== null; up = up.parentElement) {
          if (getComputedStyle(up).overflowY === "visible") continue;
          const frame = up.getBoundingClientRect();
          [left, top, right, bottom] = [
            Math.max(left, frame.left),
            Math.max(top, frame.top),
            Math.min(right, frame.right),
            Math.min(bottom, frame.bottom),
          ];
        }
        return {
          left: Math.max(left, 0),
          top: Math.max(top, 0),
          right: Math.min(right, innerWidth),
          bottom: Math.min(bottom, innerHeight),
        };
      };
      for (const { name, element, box } of boxes) {
        const part = seen(element, box);
        if (part.left > box.left + 0.6 || part.top > box.top + 0.6 || part.right < box.right - 0.6 || part.bottom < box.bottom - 0.6)
          faults.push(
            `${name} is cut off: ${Math.round(box.left)},${Math.round(box.top)} to ${Math.round(box.right)},${Math.round(box.bottom)}`,
          );
        if (element.matches(".pen-line")) {
          // Its further lines lie below what is in sight; a pad is in sight whole or not at all.
          for (const one of element.querySelectorAll("button, select")) {
            const own = one.getBoundingClientRect();
            const whole = own.top > box.top - 1 && own.bottom < box.bottom + 1 && own.left > box.left - 1 && own.right < box.right + 1;
            const below = own.top > box.bottom - 1 || own.bottom < box.top + 1;
            if (!whole && !below) faults.push(`${name}: ${one.textContent} is cut`);
            if (one.scrollWidth > one.clientWidth + 1 || one.scrollHeight > one.clientHeight + 1)
              faults.push(`${name}: the words of ${one.textContent} run out of it`);
            // A word broken in two is as good as cut: every line of a pad holds whole words.
            const words = (one.textContent ?? "").split(" ").length;
            const range = document.createRange();
            range.selectNodeContents(one);
            const lines = new Set([...range.getClientRects()].map(({ top }) => Math.round(top))).size;
            if (one.tagName === "BUTTON" && lines > words) faults.push(`${name}: a word of ${one.textContent} is broken`);
          }
          continue;
        }
        // What is written inside must lie inside, line by line; what only a screen reader says has no place.
        const texts = document.createTreeWalker(element, NodeFilter.SHOW_TEXT);
        const range = document.createRange();
        for (let text = texts.nextNode(); text !== null; text = texts.nextNode()) {
          if (text.parentElement?.closest(".sr-only") != null) continue;
          range.selectNodeContents(text);
          const slack = 0.3 * Number.parseFloat(getComputedStyle(text.parentElement ?? element).fontSize);
          for (const line of range.getClientRects())
            if (line.left < box.left - 1 || line.right > box.right + 1 || line.top < box.top - slack || line.bottom > box.bottom + slack)
              faults.push(`${name}: its words run out of it`);
        }
      }
      for (const [i, a] of boxes.entries())
        for (const b of boxes.slice(i + 1)) {
          if (a.element.contains(b.element) || b.element.contains(a.element)) continue;
          const across = Math.min(a.box.right, b.box.right) - Math.max(a.box.left, b.box.left);
          const down = Math.min(a.box.bottom, b.box.bottom) - Math.max(a.box.top, b.box.top);
          if (across > 0.6 && down > 0.6) faults.push(`${a.name} and ${b.name} overlap by ${Math.round(across)}×${Math.round(down)}`);
        }
      const sideways = document.documentElement.scrollWidth - document.documentElement.clientWidth;
      if (sideways > 0) faults.push(`the page is ${sideways} px too wide`);
      return faults;
    },
    { wanted, leastPad },
  );
}
