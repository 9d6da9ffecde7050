import { Choice } from "./Choice";
import { useUnit } from "./unit";

/** Inches or millimetres, for every length on the page. */
export function UnitChoice() {
  const { unit, setUnit } = useUnit();
  return (
    <div className="w-24">
      <Choice
        label="Unit"
        value={unit}
        onChange={setUnit}
        options={[
          { value: "in", label: "in" },
          { value: "mm", label: "mm" },
        ]}
      />
    </div>
  );
}
