import { Tabs } from "radix-ui";
import type { ReactNode } from "react";

/** Parts of a page as tabs. */
export function PartTabs<T extends string>(props: {
  label: string;
  value: T;
  parts: readonly { value: T; label: string; hint?: string }[];
  onChange: (value: T) => void;
  /** Class names of the tab list, and of the open part. */
  className?: string;
  partClassName: string;
  children: ReactNode;
}) {
  return (
    <Tabs.Root value={props.value} onValueChange={(value) => props.onChange(value as T)} className="contents">
      <Tabs.List aria-label={props.label} className={`flex shrink-0 border-b border-rule ${props.className ?? ""}`}>
        {props.parts.map(({ value, label, hint }) => (
          <Tabs.Trigger
            key={value}
            value={value}
            title={hint}
            className={`-mb-px grow border-b-2 border-transparent ${props.parts.length > 4 ? "px-1" : "px-2"} py-1 text-sm text-soft hover:text-ink data-[state=active]:border-ink data-[state=active]:font-bold data-[state=active]:text-ink`}
          >
            {label}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      <Tabs.Content value={props.value} tabIndex={-1} className={props.partClassName}>
        {props.children}
      </Tabs.Content>
    </Tabs.Root>
  );
}
