import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, type FileNames as Patterns } from "../api/client";
import { INPUT, KeptText } from "../ui/KeptText";
import { Alert } from "../ui/parts";

/** Patterns for the names of files in archives. */
export function FileNames() {
  const queries = useQueryClient();
  const query = useQuery({ queryKey: ["file-names"], queryFn: api.fileNames });
  const save = useMutation({
    mutationFn: (patterns: Patterns) => api.putFileNames(patterns),
    onSuccess: (patterns) => queries.setQueryData(["file-names"], patterns),
  });
  const now = query.data;
  if (!now) return null;
  const field = (of: keyof Patterns, label: string) => (
    <div className="flex items-center gap-2">
      <span className="text-soft">{label}</span>
      <KeptText
        name={label}
        value={now[of] ?? ""}
        most={200}
        className={`${INPUT} w-72`}
        onValue={(pattern) => save.mutate({ ...now, [of]: pattern })}
      />
    </div>
  );
  return (
    <details className="py-2 text-sm">
      <summary className="cursor-pointer text-soft">Names of files in archives</summary>
      <div className="mt-1.5 flex flex-wrap items-center gap-x-4 gap-y-2">
        {field("batch", "In a batch")}
        {field("pack", "Pictures of a listing pack")}
        <span className="text-xs text-soft">
          {"{id}, {title}, {blank}, {number} and {name} are filled in; / makes a folder"}
        </span>
      </div>
      {save.error && <Alert>{save.error.message}</Alert>}
    </details>
  );
}
