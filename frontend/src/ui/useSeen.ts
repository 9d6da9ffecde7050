import { type RefObject, useEffect, useState } from "react";

/** Whether something has ever come into sight; not looked for once `enough` is known. */
export function useSeen(frame: RefObject<Element | null>, enough: boolean): boolean {
  const [seen, setSeen] = useState(false);
  useEffect(() => {
    const target = frame.current;
    if (!target || enough || seen) return;
    const watch = new IntersectionObserver((entries) => entries.some((e) => e.isIntersecting) && setSeen(true));
    watch.observe(target);
    return () => watch.disconnect();
  }, [frame, enough, seen]);
  return seen;
}
