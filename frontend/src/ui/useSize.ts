import { type RefObject, useLayoutEffect, useRef, useState } from "react";

/** The current size of an element in CSS pixels. */
export function useSize<T extends HTMLElement>(): [RefObject<T | null>, { width: number; height: number }] {
  const element = useRef<T>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  useLayoutEffect(() => {
    if (!element.current) return;
    const watcher = new ResizeObserver(([entry]) => {
      if (entry) setSize({ width: Math.round(entry.contentRect.width), height: Math.round(entry.contentRect.height) });
    });
    watcher.observe(element.current);
    return () => watcher.disconnect();
  }, []);
  return [element, size];
}
