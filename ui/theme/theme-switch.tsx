"use client";

import { Moon, Sun, SunMedium } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { useState } from "react";
import { isTheme, THEME_COOKIE, type Theme } from "./theme";

const CHOICES = [
  { value: "desk", label: "Desk", hint: "indoors" },
  { value: "field", label: "Field", hint: "sunlight" },
  { value: "barn", label: "Barn", hint: "dusk" },
  { value: "system", label: "As the system", hint: "" },
] as const;

function Icon({ theme }: { theme: Theme | null }) {
  if (theme === "barn") return <Moon size={18} aria-hidden="true" />;
  if (theme === "field") return <Sun size={18} aria-hidden="true" />;
  return <SunMedium size={18} aria-hidden="true" />;
}

/** Pins a theme for this browser. */
export function ThemeSwitch({ pinned }: { pinned: Theme | null }) {
  const [theme, setTheme] = useState(pinned);
  const choose = (value: string) => {
    const next = isTheme(value) ? value : null;
    // biome-ignore lint/suspicious/noDocumentCookie: the server needs it to paint the first frame in the right theme
    document.cookie = `${THEME_COOKIE}=${next ?? ""}; path=/; max-age=${next === null ? 0 : 31_536_000}; samesite=strict`;
    if (next === null) delete document.documentElement.dataset.theme;
    else document.documentElement.dataset.theme = next;
    setTheme(next);
  };
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="grid size-10 place-items-center rounded hover:bg-paper" aria-label="Theme">
        <Icon theme={theme} />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" sideOffset={6} className="z-40 min-w-44 rounded border-2 border-ink bg-paper p-1">
          <DropdownMenu.RadioGroup value={theme ?? "system"} onValueChange={choose}>
            {CHOICES.map(({ value, label, hint }) => (
              <DropdownMenu.RadioItem
                key={value}
                value={value}
                className="flex cursor-pointer items-center justify-between gap-4 rounded px-3 py-2 outline-none data-highlighted:bg-tarn-wash data-[state=checked]:font-bold"
              >
                {label}
                <span className="text-sm font-normal text-soft">{hint}</span>
              </DropdownMenu.RadioItem>
            ))}
          </DropdownMenu.RadioGroup>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
