import type { ReactNode } from "react";
import { Below, Masthead } from "./Masthead";
import { Waiting } from "./Waiting";

type Asked<T> = { data: T | undefined; error: Error | null; refetch: () => unknown };

/** A page below the range board that shows one answer of the server. */
export function SubPage<T>(props: {
  title: string;
  asked: Asked<T>;
  waiting: string;
  actions?: ReactNode;
  children: (data: T) => ReactNode;
}) {
  const { title, asked } = props;
  return (
    <div className="flex h-full flex-col">
      <Masthead
        where={
          <Below>
            <b className="text-ink">{title}</b>
          </Below>
        }
      >
        {props.actions}
      </Masthead>
      {asked.data === undefined ? (
        <Waiting problem={asked.error?.message} onRetry={() => asked.refetch()}>
          {props.waiting}
        </Waiting>
      ) : (
        <main className="grow overflow-y-auto">
          <div className="mx-auto w-full max-w-6xl p-4">
            <h1 className="mb-3 text-lg font-bold">{title}</h1>
            {props.children(asked.data)}
          </div>
        </main>
      )}
    </div>
  );
}
