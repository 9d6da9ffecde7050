import type { Sewing } from "../api/client";

/** Results along the seams of a face, in words. */
export function SeamTable({ state, face }: { state: Sewing; face?: Sewing["faces"][number] }) {
  const there = new Set(face?.panels.map(({ panel }) => panel));
  const seams = state.seams.filter((seam) => there.has(seam.leader) && there.has(seam.follower));
  return (
    <table className="m-3 mt-0 max-h-44 overflow-y-auto text-xs">
      <thead className="text-left text-soft">
        <tr>
          <th className="font-normal">Seam</th>
          <th className="font-normal">The design</th>
          <th className="text-right font-normal">Colour difference (ΔE2000)</th>
        </tr>
      </thead>
      <tbody>
        {seams.map((seam) => (
          <tr key={seam.id} className="border-t border-rule">
            <td>{seam.title}</td>
            <td className={seam.runs_on === false ? "font-bold" : ""}>{said(seam, state.tolerance_mm)}</td>
            <td className="text-right">{seam.delta_e === null ? "" : `ΔE ${seam.delta_e.toFixed(1)}`}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function said(seam: Sewing["seams"][number], tolerance: number): string {
  if (seam.off_mm === null) return "breaks: each side has its own";
  const off = `${seam.off_mm.toFixed(1)} mm`;
  if (seam.runs_on) return `runs on, ${off} off at most`;
  return `cannot run on: ${off} off, ${tolerance} mm may be sewn off`;
}
