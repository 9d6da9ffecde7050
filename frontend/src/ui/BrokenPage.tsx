import { useRouteError } from "react-router";
import { Button } from "./parts";

/** Shown if a page's code fails: what happened, that nothing is lost, and two ways to continue. */
export function BrokenPage() {
  const error = useRouteError();
  return (
    <main role="alert" className="mx-auto max-w-md p-12">
      <h1 className="mb-2 text-xl font-bold">This page cannot be shown</h1>
      <p className="mb-2">Your artworks, placements and files are stored and unchanged. Load the page again.</p>
      <p className="mb-4 text-sm text-soft">
        The browser reports: {error instanceof Error ? error.message : String(error)}
      </p>
      <div className="flex items-center gap-4">
        <Button onClick={() => location.reload()}>Load the page again</Button>
        <a href="/" className="underline">
          Go to the range board
        </a>
      </div>
    </main>
  );
}
