import { Choice } from "../ui/Choice";
import { STATES, type States } from "./useStates";

/** Shows only the pairs whose next thing to do is the chosen one. */
export function StateFilter({ states }: { states: States }) {
  const options = [
    { value: "all" as const, label: `All ${states.count("all")}` },
    ...STATES.filter(([state]) => states.count(state) > 0 || states.shown === state).map(([value, label]) => ({
      value,
      label: `${label} ${states.count(value)}`,
    })),
  ];
  return <Choice label="Show pairs" value={states.shown} options={options} onChange={states.show} />;
}
