import { createContext, type ReactNode, useContext, useState } from "react";
import type { Unit } from "./measure";

const KEY = "improva.unit";
const Context = createContext<{ unit: Unit; setUnit: (unit: Unit) => void }>({ unit: "in", setUnit: () => {} });

/** The unit for lengths, stored in this browser. */
export function UnitProvider({ children }: { children: ReactNode }) {
  const [unit, keep] = useState<Unit>(() => (localStorage.getItem(KEY) === "mm" ? "mm" : "in"));
  const setUnit = (next: Unit) => {
    localStorage.setItem(KEY, next);
    keep(next);
  };
  return <Context.Provider value={{ unit, setUnit }}>{children}</Context.Provider>;
}

export const useUnit = () => useContext(Context);
