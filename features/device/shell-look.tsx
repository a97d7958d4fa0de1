"use client";

import { useEffect } from "react";
import { isTheme, THEME_COOKIE } from "@/ui/theme/theme";
import { cookieOf } from "./cookie";

/** On pages that hold no data and may come from the device: the theme is read here, since no server has seen the cookie. */
export function ShellLook() {
  useEffect(() => {
    const theme = cookieOf(THEME_COOKIE);
    if (isTheme(theme)) document.documentElement.dataset.theme = theme;
    // From here on every button on the page answers; the browser tests wait for it.
    document.documentElement.dataset.ready = "yes";
  }, []);
  return null;
}
