"use client";

import { Printer } from "lucide-react";

export function PrintButton({ label }: { label: string }) {
  return (
    <button type="button" className="act no-print" onClick={() => window.print()}>
      <Printer size={18} aria-hidden="true" /> {label}
    </button>
  );
}
