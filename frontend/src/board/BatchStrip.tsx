import type { Batch } from "../api/client";
import { Alert, Button, DownloadLink } from "../ui/parts";
import { FileNames } from "./FileNames";
import type { Batches } from "./useBatches";

/** Progress and results of work on many pairs. */
export function BatchStrip({ work }: { work: Batches }) {
  const { batches, leftOut, problem } = work;
  if (batches.length === 0 && !problem) return null;
  return (
    <section
      aria-label="Work on many pairs"
      className="max-h-48 shrink-0 overflow-y-auto border-t border-rule bg-paper px-4"
    >
      {problem && (
        <div className="py-2">
          <Alert>{problem}</Alert>
        </div>
      )}
      {batches.map((batch, i) => (
        <Line key={batch.id} batch={batch} work={work} leftOut={i === 0 ? leftOut : []} />
      ))}
      {batches.some((batch) => batch.files > 0) && <FileNames />}
    </section>
  );
}

function Line({ batch, work, leftOut }: { batch: Batch; work: Batches; leftOut: Batches["leftOut"] }) {
  const steer = (how: Parameters<Batches["steer"]>[1]) => () => work.steer(batch, how);
  return (
    <div className="border-b border-rule py-2 text-sm last:border-b-0">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <b className="w-56 truncate">{batch.title}</b>
        {batch.under_way && (
          <progress className="h-2 w-48 accent-accent" max={1} value={batch.share} aria-label={batch.title} />
        )}
        <span role="status">{told(batch)}</span>
        <span className="ml-auto flex items-center gap-2">
          {batch.files > 0 && (
            <DownloadLink href={`/api/batches/${batch.id}/files`}>
              {batch.files === 1 ? "1 file" : `${batch.files} files`} in a ZIP
            </DownloadLink>
          )}
          {batch.under_way ? (
            <>
              <Button onClick={steer(batch.paused ? "resume" : "pause")}>{batch.paused ? "Resume" : "Pause"}</Button>
              <Button onClick={steer("stop")}>Stop</Button>
            </>
          ) : (
            <>
              {batch.failed + batch.stopped > 0 && <Button onClick={steer("again")}>Retry failed jobs</Button>}
              <Button tone="quiet" onClick={steer("away")}>
                Dismiss
              </Button>
            </>
          )}
        </span>
      </div>
      {[...batch.problems, ...leftOut].map(({ title, why }) => (
        <p key={title} className="text-soft">
          Not made: <b>{title}</b>, {why}
        </p>
      ))}
    </div>
  );
}

function told({ jobs, done, failed, stopped, paused, under_way }: Batch): string {
  const rest = [failed > 0 && `${failed} failed`, stopped > 0 && `${stopped} stopped`].filter(Boolean).join(", ");
  const progress = `${done} of ${jobs} steps done${rest && `, ${rest}`}`;
  return under_way && paused ? `Paused: ${progress}` : progress;
}
