import { useLayoutEffect } from "react";

/** Hears every key pressed on the page. Bound before each paint, so a key always does what is on the screen then. */
export function useKeys(heard: (event: KeyboardEvent) => void) {
  useLayoutEffect(() => {
    window.addEventListener("keydown", heard);
    return () => window.removeEventListener("keydown", heard);
  });
}
