import { useEffect, useRef } from "react";

/** A check box that selects one pair, a row, a column or the whole board. */
export function PickBox(props: { label: string; state: "all" | "some" | "none"; onTurn: () => void; quiet?: boolean }) {
  const box = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (box.current) box.current.indeterminate = props.state === "some";
  }, [props.state]);
  return (
    <input
      ref={box}
      type="checkbox"
      aria-label={props.label}
      title={props.label}
      checked={props.state === "all"}
      onChange={props.onTurn}
      className={`size-4 shrink-0 accent-accent ${props.quiet ? "appearance-none group-hover:appearance-auto focus-visible:appearance-auto" : ""}`}
    />
  );
}
