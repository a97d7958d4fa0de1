"use client";

import { useRouter } from "next/navigation";
import { type ComponentProps, createContext, useContext, useMemo } from "react";

/** How a page leads on: on the server's pages by their address, in the pen by what the device holds. */
export interface Way {
  /** The address under which a page is shown here. */
  readonly at: (path: string) => string;
  readonly push: (path: string) => void;
  /** Shows the page anew with what is known now. */
  readonly refresh: () => void;
  /** Whether this is the pen: pages made on the device, with or without the server. */
  readonly pen: boolean;
}

const WayContext = createContext<Way | null>(null);

export const WayProvider = WayContext.Provider;

/** The way of the page one is on. */
export function useWay(): Way {
  const own = useContext(WayContext);
  const router = useRouter();
  return useMemo(() => own ?? { at: (path) => path, push: router.push, refresh: router.refresh, pen: false }, [own, router]);
}

/** A link that leads to a page the way one is going. A plain one: the recorder, which has few, does not load what fetches pages ahead. */
export function WayLink({ href, onClick, ...rest }: Omit<ComponentProps<"a">, "href"> & { href: string }) {
  const way = useWay();
  const to = way.at(href);
  const here = !way.pen || to !== href || href.startsWith("/pen");
  return (
    <a
      {...rest}
      href={to}
      onClick={(event) => {
        onClick?.(event);
        if (!here || event.defaultPrevented || event.metaKey || event.ctrlKey || event.shiftKey || event.button !== 0) return;
        event.preventDefault();
        way.push(href);
      }}
    />
  );
}
