import type { PrintState } from "../api/client";
import { Length, Pick } from "../ui/fields";
import { show } from "../ui/measure";
import { Heading } from "../ui/parts";
import { useUnit } from "../ui/unit";
import type { Print } from "./usePrinting";

const TITLES: Record<string, string> = { letter: "Letter", legal: "Legal", a4: "A4", a3: "A3" };

/** The printer's paper: a larger print is cut into overlapping sheets. */
export function PaperPart({ print, state }: { print: Print; state: PrintState }) {
  const { unit } = useUnit();
  const { printing, plan, papers } = state;
  const paper = printing.paper ?? "none";
  const own = paper !== "none" && !(paper in papers);
  const [w, h] = own ? paper.replace("mm", "").split("x").map(Number) : [330, 482];
  const length = (label: string, mm: number, most: number, onValue: (mm: number) => void) => (
    <Length label={label} mm={mm} least={0} panel={{ dpi: 300 }} onValue={(value) => onValue(Math.min(most, value))} />
  );
  const setOwn = (size: [number, number]) =>
    print.change({ paper: `${size.map((mm) => Math.round(Math.max(20, mm) * 100) / 100).join("x")}mm` });
  const options = [
    ["none", "One file"],
    ...Object.entries(papers).map(
      ([name, size]) =>
        [name, `${TITLES[name] ?? name}, ${show(size[0], unit)} × ${show(size[1], unit)} ${unit}`] as const,
    ),
    ["own", "A size of my own"],
  ] as const;
  const columns = new Set(plan.sheets.map((sheet) => sheet.box[0])).size;
  return (
    <div className="grid gap-2">
      <Heading>The printer's paper</Heading>
      <Pick
        label="Paper"
        value={own ? "own" : paper}
        options={options}
        onValue={(next) => print.change({ paper: next === "own" ? "330x482mm" : next })}
      />
      {own && (
        <>
          {length("Width", w ?? 0, 10_000, (mm) => setOwn([mm, h ?? 0]))}
          {length("Height", h ?? 0, 10_000, (mm) => setOwn([w ?? 0, mm]))}
        </>
      )}
      {paper !== "none" && (
        <>
          {length("Margin", printing.margin_mm ?? 5, 100, (margin_mm) => print.change({ margin_mm }))}
          {length("Overlap", printing.overlap_mm ?? 10, 200, (overlap_mm) => print.change({ overlap_mm }))}
          {!plan.problem && (
            <p className="text-sm">
              <b>
                {plan.sheets.length} {plan.sheets.length === 1 ? "sheet" : "sheets"}
              </b>
              {plan.sheets.length > 1 && `, ${columns} across and ${plan.sheets.length / columns} down`}
              {plan.paper_mm && plan.paper_mm[0] > plan.paper_mm[1] ? ", paper lying" : ", paper upright"}
            </p>
          )}
          <p className="text-xs text-soft">
            One PDF. Every sheet has targets and its number outside the art; the last page shows how to join them. Print
            at 100 %, never fitted to the page.
          </p>
        </>
      )}
    </div>
  );
}
