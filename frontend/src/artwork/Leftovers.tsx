import type { Panel, Report } from "../api/client";
import { show } from "../ui/measure";
import { Button, Heading } from "../ui/parts";
import { useUnit } from "../ui/unit";
import type { Preparing } from "./usePreparation";

const RING_BELOW_MM = 1;

/** The specks and holes circled in the view: those that a clean step would remove. */
export function ringed(preparing: Preparing): Report["specks"] {
  return preparing.report.has_alpha ? preparing.report.specks.filter((spot) => spot.size_mm < RING_BELOW_MM) : [];
}

/** Thin parts are reported if the cut-out is sewn or has a border; otherwise thin lines are part of the drawing. */
export const sewn = (preparing: Preparing, panel: Panel) =>
  panel.shape === "cutout" || preparing.steps.some((step) => step.kind === "border" && step.on);

const counted = (n: number, one: string) => `${n} ${one}${n === 1 ? "" : "s"}`;

/** Specks and holes that a cut left, and necks that will crumple, each with the step that fixes it. */
export function Leftovers({ preparing, panel }: { preparing: Preparing; panel: Panel }) {
  const { unit } = useUnit();
  const { report, steps } = preparing;
  if (!report.has_alpha) return null;
  const found = ringed(preparing);
  const specks = found.filter((spot) => spot.kind === "speck").length;
  const holes = found.length - specks;
  const bordered = steps.findIndex((step) => step.kind === "border" && step.on);
  const clear = () => {
    const values = { specks: RING_BELOW_MM, holes: RING_BELOW_MM };
    const at = steps.findIndex((step) => step.kind === "clean");
    const after = steps.findIndex((step) => step.kind === "cut") + 1;
    const next = [...steps];
    if (at >= 0) next[at] = { kind: "clean", values, on: true };
    else next.splice(after || steps.length, 0, { kind: "clean", values, on: true });
    preparing.decide(next);
  };
  const thicken = () =>
    preparing.decide(
      steps.map((step, i) => (i === bordered ? { ...step, values: { ...step.values, necks: report.neck_mm } } : step)),
    );
  return (
    <div className="grid gap-1.5">
      <Heading aside="circled in the view">Found on the cut-out</Heading>
      {found.length > 0 ? (
        <>
          <p className="text-sm">
            {[specks && counted(specks, "speck"), holes && counted(holes, "hole")].filter(Boolean).join(" and ")}{" "}
            smaller than {show(RING_BELOW_MM, unit, 2)} {unit}.
          </p>
          <Button onClick={clear}>Clear specks, fill holes</Button>
        </>
      ) : (
        <p className="text-sm text-soft">
          No specks or holes smaller than {show(RING_BELOW_MM, unit, 2)} {unit}.
        </p>
      )}
      {report.necks.length > 0 && sewn(preparing, panel) && (
        <>
          <p className="text-sm">
            {counted(report.necks.length, "part")} thinner than {show(report.neck_mm, unit, 2)} {unit}; the thinnest is{" "}
            {show(report.necks[0]?.width_mm ?? 0, unit, 2)} {unit}. Sewn, it crumples.
          </p>
          {bordered >= 0 && (
            <Button onClick={thicken}>
              Thicken to {show(report.neck_mm, unit, 2)} {unit}
            </Button>
          )}
        </>
      )}
    </div>
  );
}
