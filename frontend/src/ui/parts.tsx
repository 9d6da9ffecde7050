import { Download } from "lucide-react";
import { type ButtonHTMLAttributes, type MouseEvent, type ReactNode, useEffect, useRef } from "react";
import type { Status } from "../api/client";

/** Labels of verdicts. Each verdict also has its own shape, so that colour is never the only difference. */
export const WORDS: Record<Status, string> = { pass: "Ready", warn: "Review", fail: "Fix" };

export function Mark({ status, size = 14 }: { status: Status; size?: number }) {
  const stroke = { stroke: "currentColor", strokeWidth: 1.6, fill: "none", strokeLinecap: "round" } as const;
  return (
    <svg width={size} height={size} viewBox="0 0 16 16" aria-hidden="true" className="shrink-0">
      {status === "pass" && <path d="M2.5 8.5 6.3 12.2 13.5 4" {...stroke} />}
      {status === "warn" && (
        <g {...stroke}>
          <path d="M8 2 15 14H1Z" strokeLinejoin="round" />
          <path d="M8 6.5v3.4M8 12v.1" />
        </g>
      )}
      {status === "fail" && (
        <g>
          <path d="M1.5 1.5h13v13h-13z" fill="currentColor" />
          <path d="m5 5 6 6m0-6-6 6" {...stroke} stroke="var(--color-paper)" />
        </g>
      )}
    </svg>
  );
}

export function Verdict({ status }: { status: Status }) {
  return (
    <span className={`inline-flex items-center gap-1.5 ${status === "pass" ? "text-soft" : "font-bold text-ink"}`}>
      <Mark status={status} />
      {WORDS[status]}
    </span>
  );
}

type ButtonProps = ButtonHTMLAttributes<HTMLButtonElement> & {
  tone?: "main" | "plain" | "quiet";
  /** The button waits for data: it keeps its focus, and a press takes effect once the data arrives. */
  waits?: boolean;
};

export function Button({ tone = "plain", className = "", waits = false, onClick, ...rest }: ButtonProps) {
  const pendingPress = useRef<MouseEvent<HTMLButtonElement> | null>(null);
  useEffect(() => {
    if (waits || !pendingPress.current) return;
    const press = pendingPress.current;
    pendingPress.current = null;
    if (!rest.disabled) onClick?.(press);
  });
  const tones = {
    main: "bg-accent text-paper hover:bg-ink disabled:bg-rule disabled:text-soft",
    plain: "border border-rule bg-paper hover:border-ink disabled:text-soft disabled:hover:border-rule",
    quiet: "hover:bg-table disabled:text-rule disabled:hover:bg-transparent",
  };
  return (
    <button
      type="button"
      className={`inline-flex min-h-8 items-center justify-center gap-1.5 rounded-[3px] px-3 py-1 font-medium ${waits ? "cursor-progress" : ""} ${tones[tone]} ${className}`}
      aria-busy={waits || undefined}
      onClick={(press) => {
        if (waits) pendingPress.current = press;
        else onClick?.(press);
      }}
      {...rest}
    />
  );
}

/** A link that looks like a button and downloads a file. */
export function DownloadLink({ href, children }: { href: string; children: ReactNode }) {
  return (
    <a
      href={href}
      download
      className="inline-flex min-h-8 items-center gap-1.5 rounded-[3px] border border-rule bg-paper px-3 py-1 font-medium hover:border-ink"
    >
      <Download size={16} aria-hidden="true" />
      {children}
    </a>
  );
}

/** A small button with an icon and an accessible name. */
export function IconButton(props: { label: string; off?: boolean; onClick: () => void; children: ReactNode }) {
  return (
    <button
      type="button"
      aria-label={props.label}
      title={props.label}
      disabled={props.off}
      onClick={props.onClick}
      className="rounded-[3px] p-1 hover:bg-table disabled:text-rule"
    >
      {props.children}
    </button>
  );
}

export function Heading({ children, aside }: { children: ReactNode; aside?: ReactNode }) {
  return (
    <div className="mb-1.5 flex items-baseline justify-between border-b border-rule pb-0.5">
      <h3 className="text-sm font-bold">{children}</h3>
      {aside && <span className="text-xs text-soft">{aside}</span>}
    </div>
  );
}

export function Alert({ children, onRetry }: { children: ReactNode; onRetry?: () => void }) {
  return (
    <div role="alert" className="flex items-start gap-2 rounded-[3px] border border-ink bg-paper p-3 text-sm">
      <span className="mt-0.5">
        <Mark status="fail" />
      </span>
      <div className="grow">{children}</div>
      {onRetry && <Button onClick={onRetry}>Try again</Button>}
    </div>
  );
}
