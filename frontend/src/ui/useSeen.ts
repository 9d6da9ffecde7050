import { type RefObject, useEffect, useState } from "react";

/** Whether something has ever come into sight, or so near it; not looked for once `enough` is known. */
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
