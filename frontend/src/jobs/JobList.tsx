import { Downloads } from "../ui/Downloads";
import { Button } from "../ui/parts";
import { type Jobs, underWay } from "./useJobs";

/** Running jobs with their progress, and recent results. */
export function JobList({ work, most }: { work: Jobs; most: number }) {
  const now = work.jobs.filter(underWay);
  const last = work.jobs[0];
  const seen = new Set<string>();
  const files = work.jobs
    .flatMap((job) => job.files)
    .filter((file) => !seen.has(file.url) && seen.add(file.url))
    .slice(0, most);
  return (
    <>
      {now.map((job) => (
        <div key={job.id} role="status" className="grid gap-1 text-sm">
          <progress className="h-2 w-full accent-accent" max={1} value={job.share} aria-label={job.title} />
          <div className="flex items-center justify-between gap-2">
            <span>
              {job.stopping
                ? "Stopping…"
                : job.state === "queued"
                  ? "Waiting"
                  : `${Math.round(100 * job.share)} % made`}
            </span>
            <Button onClick={() => work.stop(job)} disabled={job.stopping}>
              Stop
            </Button>
          </div>
        </div>
      ))}
      {last?.state === "failed" && (
        <p role="alert" className="border border-ink bg-paper p-2 text-sm">
          {last.problem}
        </p>
      )}
      {last?.state === "stopped" && <p className="text-sm text-soft">Stopped; nothing was written.</p>}
      <Downloads files={files} />
    </>
  );
}
