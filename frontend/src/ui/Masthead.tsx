import type { ReactNode } from "react";
import { Link } from "react-router";
import { LogOut } from "../session/LogOut";

/** The bar along the top: the name, the current place, and the page's actions. */
export function Masthead({ where, children }: { where?: ReactNode; children?: ReactNode }) {
  return (
    <header className="flex h-11 shrink-0 items-center gap-4 border-b border-ink bg-table px-4">
      <Link to="/" className="text-lg font-bold tracking-tight" aria-label="Improva: the range board">
        Improva
      </Link>
      <div className="min-w-0 grow truncate text-sm text-soft">{where}</div>
      {children}
      <LogOut />
    </header>
  );
}

/** The current place, below the range board. */
export function Below({ children }: { children: ReactNode }) {
  return (
    <>
      <Link to="/" className="underline">
        Range board
      </Link>
      <span className="mx-2">/</span>
      {children}
    </>
  );
}
