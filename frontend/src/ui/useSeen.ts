import { type RefObject, useEffect, useState } from "react";

/** Whether an element was ever visible, or nearly; not observed once `enough` is true. */
export function useSeen(frame: RefObject<Element | null>, enough: boolean, near = "0px"): boolean {
  const [seen, setSeen] = useState(false);
  useEffect(() => {
    const target = frame.current;
    if (!target || enough || seen) return;
    const watch = new IntersectionObserver((entries) => entries.some((e) => e.isIntersecting) && setSeen(true), {
      rootMargin: near,
    });
    watch.observe(target);
    return () => watch.disconnect();
  }, [frame, enough, seen, near]);
  return seen;
}
