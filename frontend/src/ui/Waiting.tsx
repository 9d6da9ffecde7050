import type { ReactNode } from "react";
import { Alert } from "./parts";

/** A placeholder for content that is loading or failed to load. */
export function Waiting(props: { problem: string | null | undefined; onRetry: () => void; children: ReactNode }) {
  return (
    <div className="p-6">
      {props.problem ? (
        <Alert onRetry={props.onRetry}>{props.problem}</Alert>
      ) : (
        <p className="text-soft">{props.children}</p>
      )}
    </div>
  );
}
