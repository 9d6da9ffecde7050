import { useEffect, useRef, useState } from "react";

/** Files dropped anywhere on the page; true while some hover over it. */
export function useDrop(take: (files: File[]) => void): boolean {
  const [over, setOver] = useState(false);
  const latest = useRef(take);
  latest.current = take;
  useEffect(() => {
    let depth = 0;
    const carries = (event: DragEvent) => event.dataTransfer?.types.includes("Files") ?? false;
    const enter = (event: DragEvent) => {
      if (!carries(event)) return;
      depth += 1;
      setOver(true);
    };
    const leave = (event: DragEvent) => {
      if (!carries(event)) return;
      depth = Math.max(0, depth - 1);
      if (depth === 0) setOver(false);
    };
    const hover = (event: DragEvent) => carries(event) && event.preventDefault();
    const drop = (event: DragEvent) => {
      if (!carries(event)) return;
      event.preventDefault();
      depth = 0;
      setOver(false);
      latest.current([...(event.dataTransfer?.files ?? [])]);
    };
    const listeners: [string, (event: DragEvent) => unknown][] = [
      ["dragenter", enter],
      ["dragleave", leave],
      ["dragover", hover],
      ["drop", drop],
    ];
    for (const [name, heard] of listeners) window.addEventListener(name, heard as EventListener);
    return () => {
      for (const [name, heard] of listeners) window.removeEventListener(name, heard as EventListener);
    };
  }, []);
  return over;
}
