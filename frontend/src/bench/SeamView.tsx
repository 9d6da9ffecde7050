import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { api, type Held, type Place, type Seam } from "../api/client";
import { LargeDialog } from "../ui/LargeDialog";
import { Alert, Button } from "../ui/parts";
import { useNewestPicture } from "../ui/useNewest";

const PX_A_MM = 11.8;
const CHART_PX = 150;

/** Both ends of the wrap joined in the middle at full print size, with the mismatch along the height. */
export function SeamView({ place, now }: { place: Place; now: Held }) {
  const seam = useQuery({
    queryKey: ["pair", "seam", place, now],
    queryFn: () => api.seam(place, now),
    enabled: false,
  });
  return (
    <LargeDialog
      trigger={<Button className="shrink-0 text-sm">View the seam</Button>}
      title="The seam at full size"
      aside="right end and left end butted, as the cup will show them"
      place="inset-y-6 left-1/2 w-[46rem] -translate-x-1/2"
      onOpen={() => seam.refetch()}
    >
      <div className="min-h-0 grow overflow-auto p-4">
        {seam.error && <Alert onRetry={() => seam.refetch()}>{seam.error.message}</Alert>}
        {seam.isFetching && <p className="text-soft">Loading the seam…</p>}
        {seam.data && !seam.isFetching && <Butted place={place} now={now} seam={seam.data} />}
      </div>
    </LargeDialog>
  );
}

function Butted({ place, now, seam }: { place: Place; now: Held; seam: Seam }) {
  const height = seam.height_mm * PX_A_MM;
  const worst = Math.max(...seam.along, seam.limit * 1.5, 5);
  const x = (value: number) => (value / worst) * (CHART_PX - 20);
  const y = (i: number) => (i / (seam.along.length - 1)) * height;
  const over = seam.along.filter((value) => value > seam.limit).length / seam.along.length;
  const frame = useRef<HTMLDivElement>(null);
  const { url } = useNewestPicture({ place: place, now: now }, ({ place, now }) => api.seamPreview(place, now));
  // If the ends differ, the view starts at the worst point.
  useEffect(() => {
    const at = seam.along.indexOf(Math.max(...seam.along));
    const pane = frame.current?.parentElement;
    if (pane && (seam.along[at] ?? 0) > seam.limit)
      pane.scrollTop = (at / seam.along.length) * seam.height_mm * PX_A_MM - pane.clientHeight / 2;
  }, [seam]);
  const mean = seam.along.reduce((a, b) => a + b, 0) / seam.along.length;
  return (
    <>
      <p className="sticky -top-4 z-10 mb-2 bg-paper py-1 text-sm">
        Mean difference <b>ΔE {mean.toFixed(1)}</b>, over the limit of {seam.limit.toFixed(1)} along{" "}
        <b>{Math.round(100 * over)} %</b> of the height.
      </p>
      <div ref={frame} className="flex" style={{ height }}>
        <div className="relative shrink-0 bg-table" style={{ width: 2 * seam.side_mm * PX_A_MM }}>
          {url && <img src={url} alt="The two ends of the wrap side by side" style={{ height }} />}
          <svg className="absolute inset-0 size-full" aria-hidden="true">
            <line x1="50%" x2="50%" y1="0" y2="14" stroke="var(--color-ink)" strokeWidth="2" />
          </svg>
        </div>
        <svg
          width={CHART_PX}
          height={height}
          role="img"
          aria-label={`Mismatch along the seam, limit ΔE ${seam.limit.toFixed(1)}`}
        >
          <rect width={x(seam.limit)} height={height} fill="var(--color-table)" />
          <path
            d={`M0 0${seam.along.map((value, i) => `L${x(value).toFixed(1)} ${y(i).toFixed(1)}`).join("")}L0 ${height}Z`}
            fill="var(--color-ink)"
            fillOpacity="0.75"
          />
          <line x1={x(seam.limit)} x2={x(seam.limit)} y2={height} stroke="var(--color-accent)" strokeWidth="1.5" />
          <text x={x(seam.limit) + 4} y={14} className="fill-accent text-xs font-bold">
            limit {seam.limit.toFixed(1)}
          </text>
        </svg>
      </div>
    </>
  );
}
