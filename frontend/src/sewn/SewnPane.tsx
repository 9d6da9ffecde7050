import { useState } from "react";
import { api, type Pair, type Panel, type Place, type Sewing } from "../api/client";
import { Choice } from "../ui/Choice";
import { useSize } from "../ui/useSize";
import { Grounds } from "./Grounds";
import { type Box, boxOf, type Matrix, moved, pathOf, undone } from "./plane";
import { SeamTable } from "./SeamTable";
import type { Nudge, Sewn } from "./useSewing";

const MARGIN_PX = 30;
const PICTURE_PX = 700;
const OVER = [
  { value: "none", label: "Design only" },
  { value: "stripes", label: "Stripes" },
  { value: "squares", label: "Squares" },
  { value: "slants", label: "Diagonals" },
] as const;
type Over = (typeof OVER)[number]["value"];
type Face = Sewing["faces"][number];

/** The panels in their sewn positions with their designs, and the seams with their mismatch. */
export function SewnPane({
  place,
  pair,
  panel,
  sewn,
  onSide,
}: {
  place: Place;
  pair: Pair;
  panel: Panel;
  sewn: Sewn;
  onSide: (side: string) => void;
}) {
  const { state } = sewn;
  const [face, setFace] = useState(0);
  const [over, setOver] = useState<Over>("none");
  const shown = state?.faces[face] ?? state?.faces[0];
  return (
    <section aria-label="Sewn" className="relative flex min-w-0 flex-col border-r border-rule bg-table">
      <div className="flex flex-wrap items-center justify-between gap-2 px-3 pt-2 text-sm">
        <h2 className="font-bold">Sewn</h2>
        {state && state.faces.length > 1 && (
          <Choice
            label="Face"
            value={String(face)}
            options={state.faces.map(({ title }, i) => ({ value: String(i), label: title }))}
            onChange={(i) => setFace(Number(i))}
          />
        )}
        <Choice label="Test pattern" value={over} options={[...OVER]} onChange={setOver} />
      </div>
      {state && shown ? (
        <Lying
          place={place}
          pair={pair}
          panel={panel}
          sewn={sewn}
          state={state}
          face={shown}
          over={over}
          onSide={onSide}
        />
      ) : (
        <p className="grid grow place-items-center text-soft">Loading the sewn view…</p>
      )}
      {state && <SeamTable state={state} face={shown} />}
    </section>
  );
}

function Lying(props: {
  place: Place;
  pair: Pair;
  panel: Panel;
  sewn: Sewn;
  state: Sewing;
  face: Face;
  over: Over;
  onSide: (side: string) => void;
}) {
  const { place, pair, panel: inFront, sewn, state, face, over, onSide } = props;
  const [frame, size] = useSize<HTMLDivElement>();
  const panels = pair.template.panels;
  const lies = face.panels.flatMap((lie) => {
    const panel = panels.find((p) => p.id === lie.panel);
    return panel ? [{ ...lie, figures: panel, matrix: nudged(lie, sewn.nudge, state) }] : [];
  });
  const box = boxOf(lies.flatMap(({ figures, matrix }) => moved(matrix, figures.cut_line)));
  const k = Math.min((size.width - 2 * MARGIN_PX) / box.w, (size.height - 2 * MARGIN_PX) / box.h);
  if (!(k > 0)) return <div ref={frame} className="min-h-0 grow" />;
  const left = (size.width - box.w * k) / 2 - box.x * k;
  const top = (size.height - box.h * k) / 2 - box.y * k;
  return (
    <div ref={frame} className="relative min-h-0 grow">
      <svg width={size.width} height={size.height} className="absolute inset-0">
        <title>{face.title}</title>
        <Grounds />
        <g transform={`translate(${left} ${top}) scale(${k})`}>
          {lies.map(({ panel, matrix, content, design, figures }) => {
            const bleed = figures.bleed_mm;
            const mine = panel === inFront.id;
            const file: Box = { x: -bleed, y: -bleed, w: figures.file_mm[0], h: figures.file_mm[1] };
            const lay = { x: file.x, y: file.y, width: file.w, height: file.h };
            return (
              // biome-ignore lint/a11y/useSemanticElements: a part of a drawing cannot be an HTML button
              <g
                key={panel}
                transform={`matrix(${matrix.join(" ")})`}
                role="button"
                tabIndex={0}
                aria-label={`${figures.title}: work on it`}
                aria-pressed={mine}
                className="cursor-pointer outline-none"
                data-sewn={panel}
                onClick={() => onSide(panel)}
                onKeyDown={(event) => (event.key === "Enter" || event.key === " ") && onSide(panel)}
              >
                <clipPath id={`cut-${panel}`}>
                  <path d={pathOf(figures.cut_line)} />
                </clipPath>
                <g clipPath={`url(#cut-${panel})`}>
                  <rect {...lay} fill={pair.template.blank_colour} />
                  {content && (
                    <image
                      {...lay}
                      href={api.flat({ ...place, panel }, PICTURE_PX, sewn.stamp)}
                      preserveAspectRatio="none"
                    />
                  )}
                  {over !== "none" && (
                    <>
                      <pattern
                        id={`${over}-${panel}`}
                        href={`#over-${over}`}
                        patternTransform={`matrix(${undone(design as Matrix).join(" ")})`}
                      />
                      <rect {...lay} fill={`url(#${over}-${panel})`} opacity={0.75} />
                    </>
                  )}
                </g>
                <path
                  d={pathOf(figures.cut_line)}
                  fill="none"
                  stroke={mine ? "var(--color-accent)" : "var(--color-ink)"}
                  strokeWidth={(mine ? 2.5 : 0.8) / k}
                />
              </g>
            );
          })}
          <SeamLines state={state} face={face} lies={lies} k={k} />
        </g>
      </svg>
    </div>
  );
}

/** A panel's position with its unsaved correction; the other panels do not move. */
function nudged(lie: Face["panels"][number], nudge: Nudge | null, state: Sewing): Matrix {
  const matrix = lie.matrix as Matrix;
  const seam = nudge && state.seams.find((s) => s.id === nudge.seam);
  if (!nudge || seam?.follower !== lie.panel) return matrix;
  const [a, b, c, d, e, f] = matrix;
  return [a, b, c, d, e + a * nudge.right + c * nudge.down, f + b * nudge.right + d * nudge.down];
}

/** The seams: a band as wide as the sewing tolerance if the design continues, a dashed line if it does not. */
function SeamLines(props: { state: Sewing; face: Face; lies: { panel: string; matrix: Matrix }[]; k: number }) {
  const { state, lies, k } = props;
  return state.seams.map((seam) => {
    const leader = lies.find((lie) => lie.panel === seam.leader);
    if (!leader || !lies.some((lie) => lie.panel === seam.follower) || seam.leader === seam.follower) return null;
    const d = `M${moved(leader.matrix, seam.on as [number, number][]).join("L")}`;
    return (
      <g key={seam.id} fill="none" pointerEvents="none">
        {seam.runs_on ? (
          <path d={d} stroke="var(--color-accent)" strokeWidth={2 * state.tolerance_mm} opacity={0.18} />
        ) : (
          <path d={d} stroke="var(--color-paper)" strokeWidth={2 / k} strokeDasharray={`${5 / k} ${4 / k}`} />
        )}
      </g>
    );
  });
}
