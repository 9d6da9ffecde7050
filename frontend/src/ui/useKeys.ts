import { useLayoutEffect } from "react";

/** Listens to every key pressed on the page. Bound before each paint, so that a key always acts on what the screen shows. */
export function useKeys(heard: (event: KeyboardEvent) => void) {
  useLayoutEffect(() => {
    window.addEventListener("keydown", heard);
    return () => window.removeEventListener("keydown", heard);
  });
}
