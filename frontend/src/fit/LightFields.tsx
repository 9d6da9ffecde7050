import type { Placement } from "../api/client";
import { Plain } from "../ui/fields";

type Light = Pick<Placement, "brightness" | "saturation" | "white_point">;

/** Brightness, saturation and white point of a picture on this blank only. */
export function LightFields(props: { placement: Light; onValue: (change: Partial<Light>) => void }) {
  const { placement, onValue } = props;
  const changed = placement.brightness !== 0 || placement.saturation !== 0 || placement.white_point !== 255;
  return (
    <details open={changed || undefined} className="border-t border-rule pt-1">
      <summary className="cursor-pointer text-sm text-soft">Light and colour on this blank</summary>
      <div className="mt-1.5 grid gap-1.5">
        <Plain
          label="Brightness"
          value={placement.brightness}
          suffix="%"
          least={-100}
          most={100}
          onValue={(brightness) => onValue({ brightness })}
        />
        <Plain
          label="Saturation"
          value={placement.saturation}
          suffix="%"
          least={-100}
          most={100}
          onValue={(saturation) => onValue({ saturation })}
        />
        <Plain
          label="White point"
          value={placement.white_point}
          suffix="/255"
          least={1}
          most={255}
          onValue={(white_point) => onValue({ white_point })}
        />
      </div>
    </details>
  );
}
