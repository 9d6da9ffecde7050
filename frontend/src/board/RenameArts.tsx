import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { type Art, api } from "../api/client";
import { INPUT } from "../ui/KeptText";
import { Alert, Button } from "../ui/parts";

/** New titles for several artworks by a pattern; they are shown before they are given. */
export function RenameArts({ arts, onDone }: { arts: Art[]; onDone: () => void }) {
  const queries = useQueryClient();
  const [pattern, setPattern] = useState("{title} {number}");
  const [find, setFind] = useState("");
  const [replace, setReplace] = useState("");
  const ids = arts.map(({ id }) => id);
  const give = useMutation({
    mutationFn: (tryOnly: boolean) => api.renameArts({ artwork_ids: ids, pattern, find, replace, try_only: tryOnly }),
    onSuccess: async (_, tryOnly) => {
      if (tryOnly) return;
      await queries.invalidateQueries({ queryKey: ["board"], exact: true });
      onDone();
    },
  });
  const field = (label: string, value: string, set: (text: string) => void, className: string) => (
    <label className="flex items-center gap-2 text-sm">
      <span className="text-soft">{label}</span>
      <input className={`${INPUT} ${className}`} value={value} onChange={(event) => set(event.target.value)} />
    </label>
  );
  return (
    <form
      aria-label="Rename artworks"
      className="flex basis-full flex-wrap items-center gap-x-4 gap-y-2 border-t border-rule pt-2"
      onSubmit={(event) => {
        event.preventDefault();
        give.mutate(false);
      }}
    >
      {field("New title", pattern, setPattern, "w-56")}
      {field("Replace", find, setFind, "w-32")}
      {field("by", replace, setReplace, "w-32")}
      <span className="text-xs text-soft">{"{title}, {number} and {file} are filled in"}</span>
      <Button disabled={give.isPending} onClick={() => give.mutate(true)}>
        Show the new titles
      </Button>
      <Button tone="main" type="submit">
        {arts.length === 1 ? "Rename it" : `Rename ${arts.length} artworks`}
      </Button>
      {give.error && <Alert>{give.error.message}</Alert>}
      {give.data && (
        <p className="basis-full text-sm" role="status">
          {give.data.titles.slice(0, 6).join(" · ")}
          {give.data.titles.length > 6 && ` and ${give.data.titles.length - 6} more`}
        </p>
      )}
    </form>
  );
}
